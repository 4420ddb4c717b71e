package studio

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/text"
	"gyrophane/store"
)

// searchWorkers is how many threads a search takes, so that other painters find room beside it.
const searchWorkers = 1

// SearchTime is how long a search may take once it is worked on.
const SearchTime = 20 * time.Second

// tooLong says what to do about a search that asked too much, or ran out of time.
func tooLong(err error) error {
	var many reach.TooMany
	switch {
	case errors.As(err, &many):
		return input.Errorf("%s", text.UpperFirst(many.Sentence)+".")
	case errors.Is(err, context.DeadlineExceeded):
		return input.Errorf("Too many for an exact answer in %d seconds: leave some out, or want fewer colours.", int(SearchTime.Seconds()))
	}
	return err
}

// How many tables of pairs are kept in memory, and of how many different paints
// at most: then some 3 MB each.
const (
	mostTables = 8
	mostTabled = 100
)

// Table is reach.NewTable, remembered for as long as the paints are the same.
func (s *Studio) Table(ctx context.Context, paints []*paint.Paint, workers int, report reach.Report) (*reach.Table, error) {
	key := paintsKey(paints)
	if t, known := s.tables.Get(key); known {
		return t, nil
	}
	t, err := reach.NewTable(ctx, paints, workers, report)
	if err == nil && t.Size() <= mostTabled {
		s.tables.Add(key, t)
	}
	return t, err
}

// paintsKey tells apart what is worked out of some paints, and what is shown of
// them with it.
func paintsKey(paints []*paint.Paint) string {
	var key strings.Builder
	for _, p := range paints {
		fmt.Fprintf(&key, "%016x %q %q %q %q %q %q\n", p.Fingerprint(), p.ID, p.CI, p.Name, p.Family, p.Hiding, p.Caution)
		for _, of := range p.Of {
			fmt.Fprintf(&key, "of %g %s", of.Parts, paintsKey([]*paint.Paint{of.Paint}))
		}
	}
	return key.String()
}

// Choose finds the best systems for a request, from a painter's box, its prices
// and wanted colours. The error is an input.Error where that asks too much.
func (s *Studio) Choose(ctx context.Context, painter int64, r reach.Request) (out reach.Result, err error) {
	ctx, stop := context.WithTimeout(ctx, SearchTime)
	defer stop()
	box, err := s.Box(ctx, painter)
	if err != nil {
		return out, err
	}
	if r.Aim == reach.NearestTargets {
		_, wanted, err := s.Wanted(ctx, painter)
		if err != nil {
			return out, err
		}
		if r.Targets, err = reach.Targets(wanted, r.Medium); err != nil {
			return out, err
		}
	}
	r.Prices, r.Workers, r.Table = box.Prices(), searchWorkers, s.Table
	out, err = reach.Choose(ctx, box.Paints(), r)
	return out, tooLong(err)
}

// Replacing is what to replace the tubes of a kept system with.
type Replacing struct {
	Wheel   int64
	Library bool              // from the library; from the box otherwise
	Tried   map[string]string // by the id of a tube, of what is tried in its place
}

// Replace says for each tube of a kept system what replaces it best. The error is an input.Error where that asks too much.
func (s *Studio) Replace(ctx context.Context, p store.Painter, r Replacing) (system reach.Named, swaps []reach.Swap, err error) {
	ctx, stop := context.WithTimeout(ctx, SearchTime)
	defer stop()
	systems, err := s.SideBySide(ctx, p, []int64{r.Wheel})
	if err != nil {
		return system, nil, err
	}
	system = systems[0]
	candidates := paint.Library()
	if !r.Library {
		box, err := s.Box(ctx, p.ID)
		if err != nil {
			return system, nil, err
		}
		candidates = box.Paints()
	}
	find, tried := s.finder(ctx, As(p), nil, nil), map[string]*paint.Paint{}
	for out, in := range r.Tried {
		if tried[out], err = find(in); err != nil {
			return system, nil, err
		}
	}
	swaps, err = reach.SwapsWith(ctx, system.System, candidates, tried)
	return system, swaps, tooLong(err)
}
