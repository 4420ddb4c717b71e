package bench

import (
	"fmt"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// looks says what is wrong with how a test swatch is said to look, with an input.Error.
func (e *Event) looks() error {
	if e.Looks == nil {
		return nil
	}
	if e.Kind != Tested {
		return input.Errorf("%s: only a test swatch is said to look like a colour", e.Kind)
	}
	if _, err := paint.LabReading(*e.Looks, paint.Eye, true, paint.Medium{}); err != nil {
		return input.Wrap(err)
	}
	return nil
}

// tested takes in a test swatch: what the well holds by its looks is what is mended from then on.
func (st *Sitting) tested(set Settings, r *Region, e *Event, i int) {
	st.Places[i].Tested = true
	if e.Looks == nil {
		return
	}
	st.Swatches = append(st.Swatches, e)
	well := slices.IndexFunc(st.Wells, func(w Well) bool { return w.Region == i && len(w.Holds) > 0 })
	if well < 0 {
		return // a paint as it comes: there is nothing to mend
	}
	w := &st.Wells[well]
	w.Seems, w.Unlike = r.seems(w.Holds, *e.Looks, set.Medium)
	w.Off = true
}

// Steps of the search for a pile by its looks, in the logarithm of what it holds of a paint.
const (
	widestStep, finestStep = 0.8, 0.01
	mostApart              = 2.1 // 8 times as much of a paint, or as little
)

// seems is the pile of the same paints and as many ml that looks most like a colour, painted as a
// region is, wet; and by how much, CIEDE2000, it does not. Each paint but the main one is taken more
// or less of, by steps that are halved where none brings it nearer.
func (r *Region) seems(holds []paint.Part, looks colour.Lab, in paint.Medium) ([]paint.Part, float64) {
	main := 0
	for k, p := range holds {
		if p.Parts > holds[main].Parts {
			main = k
		}
	}
	of := func(by []float64) []paint.Part {
		out := slices.Clone(holds)
		for k := range out {
			out[k].Parts *= math.Exp(by[k])
		}
		return scaled(out, recipe.Volume(holds)/recipe.Volume(out))
	}
	off := func(by []float64) float64 {
		swatch := *r
		var err error
		if swatch.Mixture, err = paint.Mix(of(by)...); err != nil {
			return math.Inf(1)
		}
		look := swatch.Appearance(in, true)
		return colour.Difference(look.Lab(), looks)
	}
	by := make([]float64, len(holds))
	least := off(by)
	for step := widestStep; step > finestStep; {
		nearer := false
		for k := range by {
			for _, way := range []float64{step, -step} {
				if k == main || math.Abs(by[k]+way) > mostApart {
					continue
				}
				by[k] += way
				if is := off(by); is < least-1e-9 {
					least, nearer = is, true
					break
				}
				by[k] -= way
			}
		}
		if !nearer {
			step /= 2
		}
	}
	return of(by), least
}

// reckoned is the pile that is gone by: what it holds by the looks of a test swatch, else by what was
// told of amounts.
func (w *Well) reckoned() []paint.Part {
	if w.Seems != nil {
		return w.Seems
	}
	return w.Holds
}

// unlikely is the CIEDE2000 from which a swatch looks like nothing that its paints make: more than
// an eye strays.
const unlikely = 4

// looksSay is what a pile's test swatch tells of it, in a sentence; empty where it looks like what its
// paints make.
func (w *Well) looksSay() string {
	if w.Seems == nil || w.Unlike < unlikely {
		return ""
	}
	return fmt.Sprintf("Its paints do not make that colour: it is %.0f off the nearest. Look whether the brush, the well and the paints were clean.", w.Unlike)
}
