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

// Surer are the swatches that narrow the mixtures of a wheel the most for whoever asks, mixed and painted as settings have
// it and read by a source, by a photo when empty. The error is an input.Error.
func (s *Studio) Surer(ctx context.Context, who Identity, w *wheel.Wheel, set bench.Settings, by paint.Source) (journal.Surer, error) {
	if by != "" {
		if _, err := paint.ParseSource(string(by)); err != nil {
			return journal.Surer{}, input.Wrap(err)
		}
	}
	doubts, err := s.Doubts(ctx, who)
	if err != nil {
		return journal.Surer{}, err
	}
	return journal.SurerOf(w, journal.Swatching{In: set.Medium, Source: cmp.Or(by, paint.Photo), Doubts: doubts, Strays: func(r recipe.Recipe) []float64 {
		return straysOf(set.Scale, set.Slot(), r.Plain())
	}})
}

// straysOf is how far a hand strays in each of some parts that make so many ml, in shares of them.
func straysOf(scale recipe.Scale, ml float64, parts []paint.Part) (out []float64) {
	whole := max(recipe.Volume(parts), 1e-9)
	for _, p := range parts {
		out = append(out, scale.StrayOf(ml*p.Parts/whole))
	}
	return out
}

// WheelSurer are the swatches that narrow the mixtures of a sheet's wheel the most.
func (s *Studio) WheelSurer(ctx context.Context, who Identity, of Sheet, in paint.Medium) (journal.Surer, error) {
	options, err := of.Choices.Options(in)
	if err != nil {
		return journal.Surer{}, err
	}
	set, err := of.Set.In(in)
	if err != nil {
		return journal.Surer{}, err
	}
	return s.Surer(ctx, who, wheel.Build(of.System, options), set, of.Which.ReadBy)
}

func (s *Studio) swatches(ctx context.Context, who Identity, w *wheel.Wheel, set bench.Settings, by paint.Source) (out []recipe.Recipe, err error) {
	got, err := s.Surer(ctx, who, w, set, by)
	for _, one := range got.Swatches {
		out = append(out, one.Recipe)
	}
	return out, err
}
