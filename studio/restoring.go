package studio

import (
	"context"
	"errors"
	"sync"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"gyrophane/core/input"
	"gyrophane/store"
)

// Restoring is how far the backup is that a painter sent: it is read and held against what may be, then taken in.
type Restoring struct {
	Under    bool // it is under way, or waits for its turn
	Keep     bool // it is taken in, and not only looked at
	Done, Of int  // of what is seen to now; 0 of 0 while it waits
	Came     *store.Restored
	Err      error // why it came to nothing
}

// restorings are the backups that are taken in: one at a time, for that is much work; others wait. How the last of each
// painter came out is remembered for a while.
type restorings struct {
	lock sync.Mutex
	turn chan struct{}
	of   *lru.Cache[int64, *restoring]
}

type restoring struct {
	Restoring
	end context.CancelFunc
}

// How many outcomes are remembered, and how long a backup may take to be taken in.
const (
	mostRestorings = 500
	restoreTime    = 15 * time.Minute
)

func newRestorings() *restorings {
	return &restorings{turn: make(chan struct{}, 1), of: cache[int64, *restoring](mostRestorings)}
}

// Receive takes a piece of the backup that a painter sends; it says how many bytes are there.
func (s *Studio) Receive(ctx context.Context, painter store.Painter, at, bytes int64, data []byte) (have int64, err error) {
	if at == 0 {
		s.restorings.leave(painter.ID)
	}
	return s.store.Receive(ctx, painter.ID, at, bytes, data)
}

// BeginRestoring looks at the backup that a painter sent or, if keep, takes it in: that goes on when the asker has left.
// The error is an input.Error where none is there, or one is under way.
func (s *Studio) BeginRestoring(ctx context.Context, painter store.Painter, keep bool) error {
	if _, _, err := s.store.Uploaded(ctx, painter.ID); err != nil {
		if errors.Is(err, store.ErrNotFound) {
			return input.Errorf("The backup is not here, or not all of it: send it again.")
		}
		return err
	}
	working, end := context.WithTimeout(context.Background(), restoreTime)
	one := &restoring{Restoring: Restoring{Under: true, Keep: keep}, end: end}
	if !s.restorings.begin(painter.ID, one) {
		end()
		return input.Errorf("A backup is being looked at already: wait for it, or leave it.")
	}
	go func() {
		defer end()
		came, err := s.restoreUpload(working, painter, one)
		if err == nil && keep {
			err = s.store.DropUpload(working, painter.ID)
		}
		s.restorings.change(one, func(r *Restoring) {
			if r.Under, r.Err = false, err; err == nil {
				r.Came = &came
			}
		})
	}()
	return nil
}

func (s *Studio) restoreUpload(ctx context.Context, painter store.Painter, one *restoring) (out store.Restored, err error) {
	select {
	case s.restorings.turn <- struct{}{}:
		defer func() { <-s.restorings.turn }()
	case <-ctx.Done():
		return out, context.Cause(ctx)
	}
	from, size, err := s.store.Uploaded(ctx, painter.ID)
	if err != nil {
		return out, err
	}
	return s.RestoreBackup(ctx, painter, from, size, one.Keep, func(done, of int) {
		s.restorings.change(one, func(r *Restoring) { r.Done, r.Of = done, of })
	})
}

// Restoring is how far a painter's backup is; false where none was begun, or it is not remembered.
func (s *Studio) Restoring(painter store.Painter) (Restoring, bool) {
	s.restorings.lock.Lock()
	defer s.restorings.lock.Unlock()
	one, known := s.restorings.of.Get(painter.ID)
	if !known {
		return Restoring{}, false
	}
	return one.Restoring, true
}

// LeaveRestoring ends the taking in of a painter's backup, and lets it go.
func (s *Studio) LeaveRestoring(ctx context.Context, painter store.Painter) error {
	s.restorings.leave(painter.ID)
	return s.store.DropUpload(ctx, painter.ID)
}

// begin says whether none of the painter's was under way.
func (r *restorings) begin(painter int64, one *restoring) bool {
	r.lock.Lock()
	defer r.lock.Unlock()
	if before, known := r.of.Get(painter); known && before.Under {
		return false
	}
	r.of.Add(painter, one)
	return true
}

func (r *restorings) change(one *restoring, as func(*Restoring)) {
	r.lock.Lock()
	defer r.lock.Unlock()
	as(&one.Restoring)
}

func (r *restorings) leave(painter int64) {
	r.lock.Lock()
	defer r.lock.Unlock()
	if one, known := r.of.Get(painter); known {
		one.end()
		r.of.Remove(painter)
	}
}
