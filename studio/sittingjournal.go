package studio

import (
	"context"
	"errors"
	"math"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/recipe"
	"gyrophane/store"
)

// PlaceRead is a place of a sitting as it was computed and as it was read last, wet and
// dry; nil where it was not.
type PlaceRead struct {
	Region    int
	Computed  colour.Lab
	Wet, Dry  *KeptReading
	Explained *journal.Explained // of the dry reading, where that is believed
}

// SittingJournal is what came of a sitting: each place, and what the tubes seem to be.
type SittingJournal struct {
	Sitting Sitting
	Places  []PlaceRead
	Learned *journal.Learned // nil where the readings are too few
	TooFew  string           // why, in a sentence; empty where they are not
}

// SittingJournal explains what was read of a painter's sitting, and learns from it; nothing
// is kept of that.
func (s *Studio) SittingJournal(ctx context.Context, painter store.Painter, id int64) (out SittingJournal, err error) {
	if out.Sitting, err = s.Sitting(ctx, painter, id); err != nil {
		return out, err
	}
	reads, err := s.Reads(ctx, painter, id)
	if err != nil {
		return out, err
	}
	plan, in := out.Sitting.Plan, out.Sitting.Medium
	var samples []journal.Sample
	var of []int
	for i := range plan.Sheet.Regions {
		r := &plan.Sheet.Regions[i]
		look := r.Looks(in, false)
		one := PlaceRead{Region: i, Computed: look.Lab()}
		for k := range reads.Readings {
			read := &reads.Readings[k]
			if read.Region != r.ID {
				continue
			}
			if read.Wet {
				one.Wet = read
			} else {
				one.Dry = read
			}
		}
		out.Places = append(out.Places, one)
		if one.Dry != nil && one.Dry.Doubt == "" {
			samples, of = append(samples, sampleOf(plan, &out.Sitting.Stands, i, &one.Dry.Reading)), append(of, i)
		}
	}
	for n, e := range journal.Explain(samples, in) {
		out.Places[of[n]].Explained = &e
	}
	learned, err := journal.Learn(samples, in)
	switch {
	case errors.As(err, new(input.Error)):
		out.TooFew = input.Sentence(err).Error()
		return out, nil
	case err != nil:
		return out, err
	}
	out.Learned = &learned
	return out, nil
}

// sampleOf is a place as it was read dry, of the parts that were really used: as they were
// measured, else the plan's.
func sampleOf(plan *bench.Plan, stands *bench.Sitting, i int, read *journal.Reading) journal.Sample {
	r, scale := &plan.Sheet.Regions[i], plan.Settings.Scale
	out := journal.Sample{Region: r.ID, Film: r.Film, Lab: read.Lab, Noise: journal.NoiseOf(read.Source, read.Spread), Parts: r.Recipe.Plain()}
	var taken []paint.Part
	for _, t := range stands.Places[i].Took {
		for _, p := range out.Parts {
			if p.Paint.ID == t.Paint && t.Amount > 0 {
				taken = append(taken, paint.Part{Paint: p.Paint, Parts: scale.VolumeOf(recipe.Ingredient{Paint: p.Paint}, t.Amount)})
			}
		}
	}
	if len(taken) == len(out.Parts) && scale.Measure != recipe.Looks {
		out.Parts = taken
	}
	whole := 0.0
	for _, p := range out.Parts {
		whole += p.Parts
	}
	for _, p := range out.Parts {
		out.Hand = append(out.Hand, scale.HandOf(plan.Settings.Need(r)*p.Parts/math.Max(whole, 1e-9)))
	}
	return out
}
