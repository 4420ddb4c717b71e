package studio

import (
	"cmp"
	"context"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// PlanSwatches are the swatches that narrow the mixtures of a wheel, or those of every two paints of the box, the most for whoever
// asks, mixed and painted as settings have it and read as a sheet says, by a photo when it does not. The error is an input.Error.
func (s *Studio) PlanSwatches(ctx context.Context, who Identity, w *wheel.Wheel, set bench.Settings, which bench.Which) (out journal.SwatchPlan, err error) {
	if which.ReadBy != "" {
		if _, err := paint.ParseSource(string(which.ReadBy)); err != nil {
			return out, input.Wrap(err)
		}
	}
	o := journal.SwatchOptions{In: set.Medium, Spacing: w.Spacing, Source: cmp.Or(which.ReadBy, paint.Photo), Strays: func(r recipe.Recipe) []float64 {
		return straysOf(set.Scale, set.Slot(), r.Plain())
	}}
	if o.Doubts, err = s.Doubts(ctx, who); err != nil {
		return out, err
	}
	if !which.OfBox {
		return journal.PlanWheelSwatches(w, o)
	}
	p, err := who(ctx)
	if err != nil {
		return out, input.Errorf("swatches of a box are for who has one: the swatches of a wheel need none")
	}
	box, err := s.Box(ctx, p.ID)
	if err != nil {
		return out, err
	}
	return journal.PlanBoxSwatches(box.Paints(), o)
}

// straysOf is how far a hand strays in each of some parts that make so many ml, in shares of them.
func straysOf(scale recipe.Scale, ml float64, parts []paint.Part) (out []float64) {
	whole := max(recipe.Volume(parts), 1e-9)
	for _, p := range parts {
		out = append(out, scale.StrayOf(ml*p.Parts/whole))
	}
	return out
}

// WheelSwatches are the swatches of a sheet's wheel.
func (s *Studio) WheelSwatches(ctx context.Context, who Identity, of Sheet, in paint.Medium) (journal.SwatchPlan, error) {
	options, err := of.Choices.Options(in)
	if err != nil {
		return journal.SwatchPlan{}, err
	}
	set, err := of.Set.In(in)
	if err != nil {
		return journal.SwatchPlan{}, err
	}
	return s.PlanSwatches(ctx, who, wheel.Build(of.System, options), set, of.Which)
}

func (s *Studio) swatches(ctx context.Context, who Identity, w *wheel.Wheel, set bench.Settings, which bench.Which) (out []recipe.Recipe, err error) {
	got, err := s.PlanSwatches(ctx, who, w, set, which)
	for _, one := range got.Swatches {
		out = append(out, one.Recipe)
	}
	return out, err
}
