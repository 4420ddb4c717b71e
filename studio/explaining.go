package studio

import (
	"context"
	"slices"
	"sync"
	"time"

	"gyrophane/store"
)

// How long a request waits for sittings to be explained, and how long that may take for one
// painter at a time.
const (
	explainWait = 1500 * time.Millisecond
	explainTime = time.Minute
)

// explaining works out apart from the requests that ask for it what came of sittings: one at
// a time, for each painter in the order in which they were asked for, and each once.
type explaining struct {
	turn chan struct{} // one, of whoever is being explained for
	mu   sync.Mutex
	of   map[int64]*explanation // by painter, while it is under way
}

// explanation is the explaining of one painter's sittings.
type explanation struct {
	done chan struct{}
	err  error // once it is done
}

func newExplaining() *explaining {
	return &explaining{turn: make(chan struct{}, 1), of: map[int64]*explanation{}}
}

// begin lets some work be done for a painter, one step after the other, unless some is being
// done already; what it answers with says when that is over.
func (e *explaining) begin(painter int64, steps int, step func(ctx context.Context, n int) error) *explanation {
	e.mu.Lock()
	defer e.mu.Unlock()
	if under := e.of[painter]; under != nil {
		return under
	}
	out := &explanation{done: make(chan struct{})}
	e.of[painter] = out
	go func() {
		ctx, cancel := context.WithTimeout(context.Background(), explainTime)
		defer cancel()
		for n := 0; n < steps && out.err == nil && ctx.Err() == nil; n++ {
			e.turn <- struct{}{}
			out.err = step(ctx, n)
			<-e.turn
		}
		e.mu.Lock()
		delete(e.of, painter)
		e.mu.Unlock()
		close(out.done)
	}()
	return out
}

// explainedBefore are a painter's last sittings in a medium, or in all where it is empty, of
// which something was read dry, explained, but for one. Each is explained once, until
// something of it changes, and apart: working says that some are still to come.
func (s *Studio) explainedBefore(ctx context.Context, painter store.Painter, but int64, medium string) (out []SittingJournal, working bool, err error) {
	ids, err := s.store.SittingsRead(ctx, painter.ID, but, medium, mostLearned)
	if err != nil || len(ids) == 0 {
		return nil, false, err
	}
	kept, keys, err := s.keyed(ctx, painter)
	if err != nil {
		return nil, false, err
	}
	var missing []int64
	for _, one := range kept {
		if slices.Contains(ids, one.ID) && !s.told.Contains(keys[one.ID]) {
			missing = append(missing, one.ID)
		}
	}
	if len(missing) > 0 {
		under := s.explaining.begin(painter.ID, len(missing), func(ctx context.Context, n int) error {
			came, err := s.explained(ctx, painter, missing[n])
			if err == nil {
				s.told.Add(keys[missing[n]], came)
			}
			return err
		})
		select {
		case <-under.done:
			if under.err != nil {
				return nil, false, under.err
			}
		case <-time.After(explainWait):
		case <-ctx.Done():
			return nil, false, ctx.Err()
		}
	}
	for _, one := range kept {
		if !slices.Contains(ids, one.ID) {
			continue
		}
		if came, known := s.told.Get(keys[one.ID]); known {
			out = append(out, came)
		} else {
			working = true
		}
	}
	return out, working, nil
}
