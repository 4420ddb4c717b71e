package bench

import (
	"math"
	"slices"

	"gyrophane/core/input"
	"gyrophane/core/text"
)

// The limits of a sheet that comes from outside.
const (
	mostSheetSide = 5000 // mm
	longestLabel  = 300
	mostFilms     = 100 // thickness of a region
)

// CheckPlan says what is wrong with a sheet that was kept, or came in a file, and the order in which it is
// painted, with an input.Error: whatever passes can be restored, painted and drawn.
func CheckPlan(s *Sheet, fill Fill, order []int) error {
	n := len(s.Regions)
	switch {
	case !slices.Contains(SheetKinds, s.Kind):
		return input.Errorf("a sheet of the kind %q is not known", input.Clip(string(s.Kind)))
	case n == 0 || n > MostRegions:
		return input.Errorf("a sheet has 1 to %d places, and not %d", MostRegions, n)
	case !(s.W > 0 && s.W <= mostSheetSide && s.H > 0 && s.H <= mostSheetSide) || !(s.Inner >= 0 && s.Inner <= mostSheetSide):
		return input.Errorf("a sheet of %v by %v mm cannot be", s.W, s.H)
	case fill != "" && !slices.Contains(Fills, fill):
		return input.Errorf("a way of filling %q is not known", input.Clip(string(fill)))
	case len(s.Rings) > 20:
		return input.Errorf("the rings of the sheet cannot be")
	}
	if _, err := text.Line("the title of the sheet", s.Title, longestLabel); err != nil {
		return input.Wrap(err)
	}
	for _, r := range s.Rings {
		if !within(r) {
			return input.Errorf("a ring of %v mm cannot be", r)
		}
	}
	at := map[int]bool{}
	for _, i := range order {
		if i < 0 || i >= n || at[i] {
			return input.Errorf("the order names place %d, which the sheet has not, or names it twice", i)
		}
		at[i] = true
	}
	if len(order) != n {
		return input.Errorf("the order names %d places of %d", len(order), n)
	}
	ids := map[string]bool{}
	for i := range s.Regions {
		r := &s.Regions[i]
		if ids[r.ID] {
			return input.Errorf("two places are called %q", input.Clip(r.ID))
		}
		ids[r.ID] = true
		if err := r.check(i, n); err != nil {
			return err
		}
	}
	return nil
}

// within says whether a length in mm can be one on a sheet.
func within(v float64) bool { return math.Abs(v) <= mostSheetSide }

// check says what is wrong with the region of an index on a sheet of so many.
func (r *Region) check(index, of int) error {
	name := input.Clip(r.ID)
	if r.ID == "" || len(r.ID) > longestLabel {
		return input.Errorf("a place goes by 1 to %d letters", longestLabel)
	}
	for what, said := range map[string]string{"the name of a place": r.Label, "what a place is mixed from": r.Parents, "the id of a place": r.ID} {
		if _, err := text.Line(what, said, longestLabel); err != nil {
			return input.Wrap(err)
		}
	}
	if r.Home < -1 || r.Home > 11 || r.Index < 0 || r.Index > MostRegions || r.Section < -1 || r.Section > 2 || r.Step < 0 || r.Step > MostRegions {
		return input.Errorf("%s: it stands where no place is", name)
	}
	if !(r.Share >= 0 && r.Share <= 1) || !(r.Film >= 0 && r.Film <= mostFilms) {
		return input.Errorf("%s: a share of %v, or a film of %v, cannot be", name, r.Share, r.Film)
	}
	for _, one := range []Shape{r.Shape, r.InSight} {
		for _, v := range []float64{one.From, one.To, one.Inner, one.Outer, one.X, one.Y, one.W, one.H} {
			if !within(v) {
				return input.Errorf("%s: it lies outside of every sheet", name)
			}
		}
	}
	for _, list := range [][]int{r.Touches, r.Beneath} {
		for _, k := range list {
			if k < 0 || k >= of || k == index {
				return input.Errorf("%s: it lies by place %d, which the sheet has not", name, k)
			}
		}
		if len(list) > of {
			return input.Errorf("%s: it lies by more places than the sheet has", name)
		}
	}
	if a := r.Aim; a != nil && !(a.L >= 0 && a.L <= 100 && math.Abs(a.A) <= 200 && math.Abs(a.B) <= 200) {
		return input.Errorf("%s: the colour that is wanted cannot be one", name)
	}
	return nil
}
