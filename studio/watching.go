package studio

import (
	"context"
	"sync"
	"time"

	"gyrophane/store"
)

// Watch is told which of a painter's sittings something was done in, by whatever process on the database, until stop is called;
// 0 where it is not known in which: so as soon as it can be told at all.
func (s *Studio) Watch(painter store.Painter) (told <-chan int64, stop func()) {
	return s.watchers.add(painter.ID)
}

// watchers are who wants to know, by painter, when something was done in a sitting. As long as there is one, and a while
// longer, for a browser asks again and again, the database is listened to.
type watchers struct {
	listen func(ctx context.Context, begun func(), heard func(store.Done))
	mu     sync.Mutex
	of     map[int64]map[chan int64]bool
	end    context.CancelFunc // of listening; nil while nobody does
	there  bool               // the line to the database is there
	idle   *time.Timer        // ends listening where nobody came again
}

// idleLine is how long the database is listened to when nobody watches any more.
const idleLine = time.Minute

// mostUnheard is how many changes wait for a watcher; of one that is so far behind the
// further ones are dropped, and it looks again when it next does.
const mostUnheard = 64

func (w *watchers) add(painter int64) (<-chan int64, func()) {
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.of == nil {
		w.of = map[int64]map[chan int64]bool{}
	}
	if w.of[painter] == nil {
		w.of[painter] = map[chan int64]bool{}
	}
	told := make(chan int64, mostUnheard)
	w.of[painter][told] = true
	if w.idle != nil {
		w.idle.Stop()
		w.idle = nil
	}
	switch {
	case w.end == nil:
		ctx, end := context.WithCancel(context.Background())
		w.end = end
		go w.listen(ctx, w.tellAll, w.tell)
	case w.there:
		say(told, 0)
	}
	return told, func() {
		w.mu.Lock()
		defer w.mu.Unlock()
		delete(w.of[painter], told)
		if len(w.of[painter]) == 0 {
			delete(w.of, painter)
		}
		if len(w.of) == 0 && w.end != nil && w.idle == nil {
			w.idle = time.AfterFunc(idleLine, w.leave)
		}
	}
}

// leave ends listening where nobody watches.
func (w *watchers) leave() {
	w.mu.Lock()
	defer w.mu.Unlock()
	if len(w.of) == 0 && w.end != nil {
		w.end()
		w.end, w.there, w.idle = nil, false, nil
	}
}

// tell says to all who watch a painter's sittings that something was done in one.
func (w *watchers) tell(of store.Done) {
	w.mu.Lock()
	defer w.mu.Unlock()
	for told := range w.of[of.Painter] {
		say(told, of.Sitting)
	}
}

// tellAll says to everybody that something may have been done in any.
func (w *watchers) tellAll() {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.there = true
	for _, all := range w.of {
		for told := range all {
			say(told, 0)
		}
	}
}

func say(told chan int64, sitting int64) {
	select {
	case told <- sitting:
	default:
	}
}
