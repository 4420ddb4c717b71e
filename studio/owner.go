package studio

import (
	"context"
	"strconv"
	"strings"
	"unicode"

	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/store"
)

// Owner is what somebody chooses from: a box, what its tubes cost, and the
// colours that are wanted.
type Owner struct {
	Name   string
	Box    []*paint.Paint
	Prices map[string]float64
	Wanted []reach.Wanted
}

// OwnerOf is a painter of a store.
func OwnerOf(ctx context.Context, s *store.Store, p store.Painter) (out Owner, err error) {
	tubes, err := s.Tubes(ctx, p.ID)
	if err != nil {
		return out, err
	}
	var whole []paint.Tube
	for _, t := range tubes {
		whole = append(whole, paint.Tube{Definition: t.Definition, TubeDetails: t.Details()})
	}
	out.Name = p.Name
	if _, out.Wanted, err = New(s).Wanted(ctx, p.ID); err != nil {
		return out, err
	}
	out.Box, out.Prices, err = OpenTubes(whole)
	return out, err
}

// DemoOwner is the made-up demo studio, without a store.
func DemoOwner() (out Owner, err error) {
	box, err := DemoBox()
	if err != nil {
		return out, err
	}
	out.Wanted = DemoWanted
	out.Box, out.Prices, err = OpenTubes(box)
	return out, err
}

// OpenTubes are the paints of tubes, but for what is archived, and what they cost
// by id. They go by what a command line calls them: the library's id, or the
// name with hyphens for blanks; a second tube of the same has a 2 behind it.
func OpenTubes(tubes []paint.Tube) (paints []*paint.Paint, prices map[string]float64, err error) {
	prices = map[string]float64{}
	times := map[string]int{}
	for _, t := range tubes {
		if t.Archived {
			continue
		}
		id := t.Library
		if id == "" {
			id = strings.Join(strings.FieldsFunc(t.Name, func(r rune) bool { return unicode.IsSpace(r) || r == ',' }), "-")
		}
		if times[id]++; times[id] > 1 {
			id += "-" + strconv.Itoa(times[id])
		}
		one, err := t.Graded(id, paint.Grade(t.Grade))
		if err != nil {
			return nil, nil, err
		}
		paints = append(paints, one)
		if t.Price != nil {
			prices[id] = *t.Price
		}
	}
	return paints, prices, nil
}
