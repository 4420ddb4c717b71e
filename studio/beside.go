package studio

import (
	"context"

	"gyrophane/core/beside"
	"gyrophane/core/input"
)

// MostHeldPlaces is how long a row that is held may be.
const MostHeldPlaces = 160

// HeldRow is a thing that is held beside another: its places as what they are mixed from, with tubes as a
// kept wheel has them, or what was read of a sitting.
type HeldRow struct {
	Wheel, Sitting int64
	Places         []HeldPlace
}

// HeldPlace is one of its colours, each ingredient written as PAINT=PARTS.
type HeldPlace struct {
	Name  string
	Parts []string
}

// Row finds the colours of a thing that is held. The error is an input.Error.
func (s *Studio) Row(ctx context.Context, who Identity, held HeldRow) (out beside.Row, err error) {
	if held.Sitting != 0 {
		return s.readRow(ctx, who, held.Sitting)
	}
	if len(held.Places) == 0 || len(held.Places) > MostHeldPlaces {
		return nil, input.Errorf("what is held has 1 to %d colours, not %d", MostHeldPlaces, len(held.Places))
	}
	for _, p := range held.Places {
		pile, err := s.Pile(ctx, who, held.Wheel, p.Parts)
		if err != nil {
			return nil, err
		}
		out = append(out, beside.Place{Name: p.Name, Mixture: &pile.Mixture})
	}
	return out, nil
}

// readRow is what was read of a sitting, dry rather than wet.
func (s *Studio) readRow(ctx context.Context, who Identity, id int64) (out beside.Row, err error) {
	painter, err := who(ctx)
	if err != nil {
		return nil, err
	}
	came, err := s.explained(ctx, painter, id)
	if err != nil {
		return nil, err
	}
	for _, p := range came.Places {
		read := p.Dry
		if read == nil {
			read = p.Wet
		}
		if read != nil {
			out = append(out, beside.Place{Name: came.Sitting.Plan.Sheet.Regions[p.Region].Label, Read: read.Lab})
		}
	}
	if len(out) == 0 {
		return nil, input.Errorf("nothing of this sitting was read yet: read what was painted, then hold it")
	}
	return out, nil
}
