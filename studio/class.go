package studio

import (
	"context"
	"sync"
	"time"

	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
	"gyrophane/store"
)

// ClassMoves are all that a teacher does in a round.
var ClassMoves = store.ClassMoves

// mostAsked is how many pairings a round has.
const mostAsked = 40

// AskedOfClass is what a round asks.
type AskedOfClass struct {
	Called  string
	Spacing path.Spacing
	Of      []AskedPairing
}

// AskedPairing is one pairing of a round, and what becomes of it.
type AskedPairing struct {
	journal.Asked
	Truth journal.Truth
}

// AskedOfClass is what a class is asked about a kept wheel: its secondaries or, where there are any, these pairings of its
// paints. Tubes are taken as they were kept with it. The error is an input.Error, or store.ErrNotFound.
func (s *Studio) AskedOfClass(ctx context.Context, painter store.Painter, wheelID int64, pairs []store.Couple) (out AskedOfClass, err error) {
	w, system, err := s.KeptSystem(ctx, painter, wheelID)
	if err != nil {
		return out, err
	}
	options, err := w.Settings.Choices.Options(paint.Medium{})
	if err != nil {
		return out, err
	}
	out.Called, out.Spacing = w.Name, options.Spacing
	asked := journal.AskedOfWheel(wheel.Build(system, options))
	if len(pairs) > 0 {
		if asked, err = pairsOf(system, pairs); err != nil {
			return out, err
		}
	}
	if len(asked) == 0 {
		return out, input.Errorf("%s has no pairing yet that can be predicted: put paints into its places first", w.Name)
	}
	doubts, err := s.Doubts(ctx, As(painter))
	if err != nil {
		return out, err
	}
	for _, a := range asked {
		truth, err := journal.TruthOf(a.A, a.B, out.Spacing, doubts)
		if err != nil {
			return out, err
		}
		out.Of = append(out.Of, AskedPairing{a, truth})
	}
	return out, nil
}

func pairsOf(system wheel.System, pairs []store.Couple) (out []journal.Asked, err error) {
	if len(pairs) > mostAsked {
		return nil, input.Errorf("%d pairings are too many for a round: choose %d at most", len(pairs), mostAsked)
	}
	of := map[string]*paint.Paint{}
	for _, p := range system.Paints() {
		of[p.ID] = p
	}
	for _, pair := range pairs {
		a, b := of[pair.A], of[pair.B]
		if a == nil || b == nil {
			return nil, input.Errorf("%s with %s is no pairing of this wheel", pair.A, pair.B)
		}
		out = append(out, journal.Asked{Couple: path.Couple{A: a, B: b}})
	}
	return out, nil
}

// classTells is how often who looks on is told at most that something was counted in a round: a class guesses at once.
const classTells = 100 * time.Millisecond

// counting tells of rounds in which something was counted, soon and not too often.
type counting struct {
	mu   sync.Mutex
	soon map[int64]bool
}

// ClassGuess keeps what a phone says of the pairing that is asked for.
func (s *Studio) ClassGuess(ctx context.Context, pupil string, place int, said journal.Guess) error {
	round, err := s.store.ClassGuess(ctx, pupil, place, said)
	if err != nil {
		return err
	}
	c := &s.counting
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.soon == nil {
		c.soon = map[int64]bool{}
	}
	if c.soon[round] {
		return nil
	}
	c.soon[round] = true
	time.AfterFunc(classTells, func() {
		c.mu.Lock()
		delete(c.soon, round)
		c.mu.Unlock()
		tell, cancel := context.WithTimeout(context.Background(), time.Second)
		defer cancel()
		_ = s.store.TellClass(tell, round) // else the next guess tells, or the page when it looks again
	})
	return nil
}

// WatchClass is told of a round, by whatever process on the database, until stop is called: that its teacher has moved and,
// where it is wanted, that something was counted.
func (s *Studio) WatchClass(round int64, counts bool) (told <-chan int64, stop func()) {
	return s.classes.add(watchedClass(round, counts))
}

// watchedClass tells those who watch a teacher's moves from those who watch the counts too.
func watchedClass(round int64, counts bool) int64 {
	if counts {
		return 2*round + 1
	}
	return 2 * round
}

// listenClasses tells watchers of rounds as watchers of sittings are told of sittings.
func listenClasses(of *store.Store) func(ctx context.Context, begun func(), heard func(store.Done)) {
	return func(ctx context.Context, begun func(), heard func(store.Done)) {
		of.ListenClasses(ctx, begun, func(round int64, moved bool) {
			heard(store.Done{Painter: watchedClass(round, true)})
			if moved {
				heard(store.Done{Painter: watchedClass(round, false)})
			}
		})
	}
}
