package wire

import (
	"encoding/json"
	"math"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// MostPlanBytes is how large a plan in JSON may be.
const MostPlanBytes = 8 << 20

// ParsePlan reads the sheet of a plan as it was sent, and the medium that it is painted
// in. The error is an input.Error.
func ParsePlan(data []byte, find paint.Finder) (s bench.Sheet, in paint.Medium, err error) {
	if len(data) > MostPlanBytes {
		return s, in, input.Errorf("the plan is larger than %d MB", MostPlanBytes>>20)
	}
	var p BenchPlan
	if err := json.Unmarshal(data, &p); err != nil {
		return s, in, input.Errorf("this is no plan: write one with gyrophane plan --json")
	}
	if in, err = paint.ParseMedium(p.Medium); err != nil {
		return s, in, input.Wrap(err)
	}
	if len(p.Regions) == 0 || len(p.Regions) > bench.MostRegions {
		return s, in, input.Errorf("the plan has %d places, and not 1 to %d", len(p.Regions), bench.MostRegions)
	}
	s = bench.Sheet{Kind: bench.SheetKind(p.Kind), Title: p.Title, W: p.Width, H: p.Height}
	if s.Kind == "wheel" {
		s.Inner = p.Settings.Inner
	}
	for _, v := range []float64{s.W, s.H} {
		if !(v >= 1 && v <= 2000) {
			return s, in, input.Errorf("a sheet of %v by %v mm cannot be", s.W, s.H)
		}
	}
	for _, r := range p.Regions {
		one := bench.Region{ID: r.ID, Label: r.Label, Parents: r.Parents, Home: r.Home, Index: r.Index, Main: r.Main, Section: r.Section, Graded: r.Graded, Shape: bench.Shape(r.Shape), Film: r.Film, Beneath: r.Beneath, InSight: bench.Shape(r.Seen)}
		if one.InSight == one.Shape {
			one.InSight = bench.Shape{}
		}
		if !(one.Film >= 0 && one.Film <= paint.ThickestLayer) {
			return s, in, input.Errorf("%s: a film is 0 to %d thick, and not %v", input.Clip(r.ID), paint.ThickestLayer, one.Film)
		}
		for _, k := range r.Beneath {
			if k < 0 || k >= len(s.Regions) {
				return s, in, input.Errorf("%s: it lies over a place that does not stand before it", input.Clip(r.ID))
			}
		}
		for _, v := range []float64{r.Shape.From, r.Shape.To, r.Shape.Inner, r.Shape.Outer, r.Shape.X, r.Shape.Y, r.Shape.W, r.Shape.H} {
			if math.IsNaN(v) || math.Abs(v) > 4000 {
				return s, in, input.Errorf("%s: a place of the sheet lies at %v", input.Clip(r.ID), v)
			}
		}
		if one.Recipe, err = recipeOf(r.Parts, find); err != nil {
			return s, in, input.Errorf("%s: %w", input.Clip(r.ID), err)
		}
		if one.Mixture, err = paint.Mix(one.Recipe.Volumes()...); err != nil {
			return s, in, input.Errorf("%s: %w", input.Clip(r.ID), err)
		}
		s.Regions = append(s.Regions, one)
	}
	return bench.Restored(s, [3][2]*paint.Paint{}), in, nil
}

// recipeOf is a recipe as it was sent.
func recipeOf(parts []Ingredient, find paint.Finder) (r recipe.Recipe, err error) {
	for _, part := range parts {
		one := recipe.Ingredient{Parts: part.Parts}
		if len(part.Of) > 0 {
			var of []paint.Part
			for _, p := range part.Of {
				found, err := find(p.Paint)
				if err != nil {
					return nil, err
				}
				of = append(of, paint.Part{Paint: found, Parts: p.Parts})
			}
			one.Paint, err = paint.Stir(part.Paint, part.Name, of...)
		} else {
			one.Paint, err = find(part.Paint)
		}
		if err == nil && part.LetDown != nil {
			if !(part.LetDown.Parts >= 1 && part.LetDown.Parts <= 999) {
				return nil, input.Errorf("a let-down of 1 in %d cannot be", part.LetDown.Parts)
			}
			one.Thin = part.LetDown.Parts
			one.In, err = find(part.LetDown.Paint)
		}
		if err != nil {
			return nil, err
		}
		r = append(r, one)
	}
	return r, nil
}
