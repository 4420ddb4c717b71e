package bench_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/paint/painttest"
	"gyrophane/core/recipe"
	"gyrophane/core/wheel"
)

// hand is a painter who does what the cards say, but for slips: it has wells of its own, which hold
// what really went into them.
type hand struct {
	*sat
	r     *rand.Rand
	about string
	wells map[int][]paint.Part
	gave  map[int]map[string]float64 // ml that each tube gave, by region
	ended map[int]float64            // CIEDE2000 of each place to its colour as it was frozen
	asIs  map[int]bool
	upset map[int]bool // regions of sections in which something slipped
	slips int
	amiss int // slips, skips, other orders, and runs that were let go for them
}

// gives takes paint out of the tubes.
func (h *hand) gives(i int, of []paint.Part) {
	if h.gave[i] == nil {
		h.gave[i] = map[string]float64{}
	}
	for _, p := range of {
		h.gave[i][p.Paint.ID] += p.Parts
	}
}

// upsets says that something slipped in the section of a region.
func (h *hand) upsets(i int) {
	h.upset[i] = true
	h.amiss++
	for k := range h.plan.Sheet.Regions {
		if s := h.plan.Sheet.Regions[k].Section; s >= 0 && s == h.plan.Sheet.Regions[i].Section {
			h.upset[k] = true
		}
	}
}

func (h *hand) paintOf(id string) *paint.Paint {
	for _, p := range h.plan.Sheet.Paints() {
		if p.ID == id {
			return p
		}
	}
	return nil
}

// volumes are what amounts come to.
func (h *hand) volumes(used []bench.Used) (out []paint.Part) {
	scale := h.plan.Settings.Scale
	for _, u := range used {
		i := recipe.Ingredient{Paint: h.paintOf(u.Paint), In: h.paintOf(u.In), Thin: u.Thin, Parts: 1}
		require.NotNil(h.t, i.Paint, h.about)
		out = append(out, scale.Opened(i, scale.VolumeOf(i, u.Amount))...)
	}
	return out
}

func holds(parts []paint.Part) (ml float64) {
	for _, p := range parts {
		ml += p.Parts
	}
	return ml
}

func times(parts []paint.Part, by float64) []paint.Part {
	out := slices.Clone(parts)
	for i := range out {
		out[i].Parts *= by
	}
	return out
}

// mix puts into a well what a tell says, as it was really taken.
func (h *hand) mix(e bench.Event, really []bench.Used) {
	var had []paint.Part
	switch {
	case e.From > 0:
		part := e.FromML / holds(h.wells[e.From])
		require.LessOrEqual(h.t, part, 1+1e-9, "%s: %s takes more of well %d than there is", h.about, e.Region, e.From)
		had = times(h.wells[e.From], part)
		h.wells[e.From] = times(h.wells[e.From], 1-part)
	case e.Adds:
		had = h.wells[e.Well]
		require.Greater(h.t, holds(had), 0.001, "%s: %s adds to well %d, which holds nothing", h.about, e.Region, e.Well)
		recipe := h.region(e.Region).Recipe.Plain()
		for _, p := range had {
			assert.True(h.t, slices.ContainsFunc(recipe, func(q paint.Part) bool { return q.Paint == p.Paint }), "%s: %s adds to well %d, which holds %s", h.about, e.Region, e.Well, p.Paint.ID)
		}
	}
	h.wells[e.Well] = slices.Concat(had, h.volumes(really))
}

func (h *hand) region(id string) *bench.Region {
	return &h.plan.Sheet.Regions[h.plan.Sheet.Find(id)]
}

func (h *hand) off(r *bench.Region, parts []paint.Part) float64 {
	m, err := paint.Mix(parts...)
	require.NoError(h.t, err, h.about)
	is, want := m.BrushedOut(), r.Mixture.BrushedOut()
	return colour.Difference(is.Lab(), want.Lab())
}

// paints does a step; with a slip one of its amounts is really another, which is told, and mended or
// painted as it is.
func (h *hand) paints(step bench.Step, slip bool) {
	end := h.now + step.Paint.End
	r := &h.plan.Sheet.Regions[step.Region]
	scale := h.plan.Settings.Scale
	if planned := h.plan.Counted[step.Region]; planned.Adds != step.Counted.Adds {
		h.upsets(step.Region) // what happened before has let its run go
	}
	for _, tell := range step.Tells {
		if tell.Kind == bench.Painted {
			break
		}
		h.now = end - tell.Ahead.Minutes()
		h.tell(tell.Event)
		if tell.Kind != bench.Mixed {
			continue
		}
		if scale.Measure == recipe.ByLooks {
			continue
		}
		really := slices.Clone(tell.Used)
		if slip && len(really) > 0 {
			n := h.r.IntN(len(really))
			by := []float64{-1, 1, 1, 2, 2, 3}[h.r.IntN(6)]
			if scale.Measure == recipe.Grams {
				by *= 0.05
			}
			really[n].Amount = max(really[n].Amount/2, really[n].Amount+by)
		}
		h.mix(tell.Event, really)
		h.gives(step.Region, step.Counted.FromTubes())
		if slip && !slices.Equal(really, tell.Used) {
			h.slips++
			h.tell(bench.Event{Kind: bench.Measured, Region: r.ID, Used: really})
			h.upsets(step.Region)
			h.gives(step.Region, h.volumes(really))
			for _, p := range h.volumes(tell.Used) {
				h.gave[step.Region][p.Paint.ID] -= p.Parts
			}
			next := h.rest().Instead(step.Region)
			switch {
			case len(next.Remedies) > 0 && h.r.IntN(4) == 0:
				h.asIs[step.Region] = true
			case len(next.Remedies) > 0:
				of := next.Remedies[0]
				assert.NotEqual(h.t, bench.AsItIs, of.Kind, h.about)
				if h.r.IntN(3) == 0 {
					of = next.Remedies[h.r.IntN(len(next.Remedies)-1)]
				}
				for _, t := range of.Tells {
					h.tell(t.Event)
					h.mix(t.Event, t.Used)
				}
				h.gives(step.Region, of.Counted.FromTubes())
			}
		}
	}
	h.now = end
	paint := step.Tells[len(step.Tells)-1].Event
	h.tell(paint)
	well := h.wells[paint.Well]
	if paint.Well == 0 || scale.Measure == recipe.ByLooks {
		h.gives(step.Region, step.Counted.FromTubes())
		return
	}
	h.ended[step.Region] = h.off(r, well)
	if h.ended[step.Region] > 2 && !h.asIs[step.Region] {
		h.t.Logf("%s: %s off by %.1f (counted %.1f, own %v) slip %v: %s", h.about, r.ID, h.ended[step.Region], step.Counted.DE, step.Counted.Adds, slip, step.Counted.String())
	}
	st := h.stands()
	held := st.Places[step.Region].Held
	require.NotEmpty(h.t, held, "%s: %s is painted with nothing that is known", h.about, r.ID)
	assert.InDelta(h.t, 0, difference(h.t, held, well), 0.01, "%s: what %s was painted with", h.about, r.ID)
	assert.InDelta(h.t, holds(well), holds(held), 1e-6, "%s: what well %d held for %s", h.about, paint.Well, r.ID)
	needs := h.plan.Settings.Need(r) / (1 + h.plan.Settings.Thinner(r))
	if !h.asIs[step.Region] && !slip {
		assert.GreaterOrEqual(h.t, holds(well), 0.9*needs, "%s: %s has enough", h.about, r.ID)
	}
	h.wells[paint.Well] = times(well, max(0, 1-needs/holds(well)))
}

func difference(t *testing.T, a, b []paint.Part) float64 {
	x, err := paint.Mix(a...)
	require.NoError(t, err)
	y, err := paint.Mix(b...)
	require.NoError(t, err)
	p, q := x.BrushedOut(), y.BrushedOut()
	return colour.Difference(p.Lab(), q.Lab())
}

// Whatever slips, what is added goes to a well that holds what it is added to, and places end as
// they were frozen when the sitting began.
func TestSittingsWithSlipsEndAsTheyWereMeantTo(t *testing.T) {
	r := rand.New(rand.NewPCG(27, 13))
	var ended []float64
	slips, amiss, asIs, cost := 0, 0, 0, 0.0
	fills := append([]bench.Fill{""}, bench.Fills...)
	for n := range few(painttest.InFull(70, 200)) {
		in := paint.Media()[n%len(paint.Media())]
		fill := fills[n/len(paint.Media())%len(fills)]
		var w *wheel.Wheel
		if w = triad(t); r.IntN(2) == 0 {
			w = split(t)
		}
		s := sit(t, w, in.ID, func(set *bench.Settings) {
			set.Fill, set.Gaps, set.Covered = fill, r.IntN(2) == 0, r.IntN(2) == 0
			set.Wells = 5 + r.IntN(4)
		})
		h := &hand{sat: s, r: r, about: fmt.Sprintf("sitting %d in %s, %s", n, in.ID, s.plan.Fill), wells: map[int][]paint.Part{}, gave: map[int]map[string]float64{}, ended: map[int]float64{}, asIs: map[int]bool{}, upset: map[int]bool{}}
		listed := map[string]float64{}
		for _, a := range s.plan.Amounts() {
			listed[a.Paint.ID] = a.ML
		}
		slipsAt := map[int]string{}
		for _, kind := range []string{"slip", "slip", "slip", "skip", "another", "back"} {
			slipsAt[r.IntN(len(s.plan.Sheet.Regions))] = kind
		}
		for turn := 0; ; turn++ {
			rest := s.rest()
			steps := rest.Steps()
			if len(steps) == 0 {
				break
			}
			switch slipsAt[turn] {
			case "slip":
				h.paints(steps[0], true)
			case "skip":
				s.tell(bench.Event{Kind: bench.Skipped, Region: s.id(steps[0].Region)})
				h.upsets(steps[0].Region)
			case "another":
				i := steps[r.IntN(len(steps))].Region
				h.upsets(i)
				h.paints(rest.Instead(i), false)
			case "back":
				if st := s.stands(); len(st.Back) > 0 && st.Back[0].Says[:5] == "skipp" {
					s.tell(bench.Event{Kind: bench.Undone, Undoes: st.Back[0].Tap})
				}
			default:
				h.paints(steps[0], false)
			}
		}
		slips, amiss = slips+h.slips, amiss+h.amiss
		for i, off := range h.ended {
			if h.asIs[i] {
				asIs++
				continue
			}
			ended = append(ended, off)
		}
		total := map[string]float64{}
		for i, of := range h.gave {
			planned := map[string]float64{}
			for _, p := range s.plan.Counted[i].FromTubes() {
				planned[p.Paint.ID] += p.Parts
			}
			for id, ml := range of {
				total[id] += ml
				if more := ml - planned[id]; h.upset[i] && more > 0 {
					listed[id] += more
					cost += more
				}
			}
		}
		for id, ml := range total {
			assert.LessOrEqual(t, ml, listed[id]+1e-6, "%s: %s gave more than was listed, and slips cost", h.about, id)
		}
	}
	slices.Sort(ended)
	within, _ := slices.BinarySearch(ended, 2)
	t.Logf("%d places, %d slips, %d painted as they were: %.1f %% within 2, median %.2f, worst %.1f; what goes amiss costs %.2f ml", len(ended), slips, asIs, 100*float64(within)/float64(len(ended)), ended[len(ended)/2], ended[len(ended)-1], cost/float64(amiss))
	assert.GreaterOrEqual(t, float64(within), 0.95*float64(len(ended)))
	assert.Less(t, cost, 0.25*float64(amiss), "no more than a slot takes")
}

// took tells what the pile of a region really took: each of its amounts by so much more.
func (s *sat) took(step bench.Step, more ...float64) {
	s.t.Helper()
	s.now = s.now + step.Paint.Start
	for _, tell := range step.Measures {
		s.tell(tell.Event)
	}
	var really []bench.Used
	for n, of := range step.Counted.Counts {
		one := bench.Used{Paint: of.Paint.ID, Amount: of.Amount + more[n]}
		if of.In != nil {
			one.In, one.Thin = of.In.ID, of.Thin
		}
		really = append(really, one)
	}
	s.tell(bench.Event{Kind: bench.Measured, Region: s.id(step.Region), Used: really})
}

// mixedStep goes on until the next step mixes a pile of its own, of two paints as they come.
func (s *sat) mixedStep() bench.Step {
	s.t.Helper()
	for {
		steps := s.rest().Steps()
		require.NotEmpty(s.t, steps)
		if c := steps[0].Counted; steps[0].Paint.Well > 0 && len(c.Counts) == 2 && len(c.Before) == 0 {
			return steps[0]
		}
		s.do(steps[0])
	}
}

func TestAPileThatTookTooMuchHasItsWaysOn(t *testing.T) {
	s := sit(t, build(t, wheel.Split, []string{"PY184", "PY65"}, []string{"PR255", "PR122"}, []string{"PB29", "PB15:3"}), "gouache", nil)
	step := s.mixedStep()
	assert.Empty(t, step.Remedies)
	s.took(step, 0, 3)
	st := s.stands()
	next := s.rest().Steps()[0]
	require.Equal(t, step.Region, next.Region, "it stands mixed: its turn it is")
	require.NotEmpty(t, next.Remedies)
	r := &s.plan.Sheet.Regions[step.Region]
	assert.Contains(t, st.PileSays(s.plan.Sheet, step.Region), "; aimed at is ")
	kinds := map[bench.RemedyKind]bench.Remedy{}
	for _, of := range next.Remedies {
		kinds[of.Kind] = of
	}
	require.Contains(t, kinds, bench.AsItIs)
	require.Contains(t, kinds, bench.Anew)
	off := kinds[bench.AsItIs].DE
	assert.Greater(t, off, 2.0, "the card says how far off it is")
	best := next.Remedies[0]
	assert.Less(t, best.DE, off/2)
	assert.LessOrEqual(t, best.Takes, kinds[bench.Anew].Takes)
	for _, tell := range best.Tells {
		s.tell(tell.Event)
	}
	st = s.stands()
	well := st.Wells[step.Paint.Well-1]
	mix, err := paint.Mix(well.Holds...)
	require.NoError(t, err)
	is, want := mix.BrushedOut(), r.Mixture.BrushedOut()
	assert.InDelta(t, best.DE, colour.Difference(is.Lab(), want.Lab()), 0.01, "what is said is what the well holds then")
	next = s.rest().Steps()[0]
	assert.Equal(t, step.Region, next.Region)
	assert.Empty(t, next.Remedies, "it is mended")
	s.do(next)
	st = s.stands()
	assert.NotEmpty(t, st.Places[step.Region].Held)
}

// A pile that is painted as it is: what follows in its run is worked out from it.
func TestARunGoesOnFromWhatItsPileIs(t *testing.T) {
	for _, fill := range []bench.Fill{bench.FromWeaker, bench.FromStronger} {
		s := sit(t, triad(t), "gouache", func(set *bench.Settings) { set.Fill, set.Gaps = fill, true })
		first := s.mixedStep()
		s.took(first, 0, 2)
		as := s.rest().Steps()[0]
		for _, tell := range as.Tells {
			if tell.Kind != bench.Mixed {
				s.tell(tell.Event)
			}
		}
		second := -1
		for _, step := range s.rest().Steps() {
			if r := &s.plan.Sheet.Regions[step.Region]; r.Section == s.plan.Sheet.Regions[first.Region].Section && r.Step == 2 {
				second = step.Region
				planned := s.plan.Counted[second]
				assert.NotEqual(t, planned.String(), step.Counted.String(), "%s: not what was planned for another pile", fill)
				assert.Less(t, step.Counted.DE, 2.0, fill)
			}
		}
		assert.GreaterOrEqual(t, second, 0)
	}
}

// A skipped step is no step: what comes after it is added to what the well holds.
func TestWhatFollowsASkipIsWorkedOutFromTheWell(t *testing.T) {
	s := sit(t, triad(t), "gouache", func(set *bench.Settings) { set.Fill, set.Gaps = bench.FromWeaker, true })
	first := s.mixedStep()
	s.do(first)
	section := s.plan.Sheet.Regions[first.Region].Section
	of := func(step int) int {
		return slices.IndexFunc(s.plan.Sheet.Regions, func(r bench.Region) bool { return r.Section == section && r.Step == step })
	}
	last := of(4 - s.plan.Sheet.Regions[first.Region].Step)
	s.tell(bench.Event{Kind: bench.Skipped, Region: s.id(of(2))})
	rest := s.rest()
	c := rest.Counted[last]
	assert.True(t, c.Adds)
	assert.Less(t, c.DE, 1.5, "%s", c.String())
	st := s.stands()
	all := slices.Concat(st.Wells[first.Paint.Well-1].Holds, c.Volumes())
	assert.Less(t, (&hand{sat: s}).off(&s.plan.Sheet.Regions[last], all), 1.5)
}

// Another place first has a pile of its own, washed for by what the brush holds now; the run it is
// of goes on with the others.
func TestAnotherPlaceFirstHasAPileOfItsOwn(t *testing.T) {
	s := sit(t, triad(t), "gouache", func(set *bench.Settings) { set.Fill, set.Gaps = bench.FromWeaker, true })
	rest := s.rest()
	for _, step := range rest.Steps()[1:] {
		instead := rest.Instead(step.Region)
		assert.Equal(t, step.Region, instead.Region)
		r := &s.plan.Sheet.Regions[step.Region]
		if r.Step > 0 {
			assert.False(t, instead.Counted.Adds, "%s: no pile stands that it could be added to", r.ID)
		}
		for _, before := range instead.Before {
			assert.NotEqual(t, bench.Wash, before.Kind, "%s: the brush is clean", r.ID)
		}
	}
	i := rest.Steps()[len(rest.Steps())-1].Region
	s.do(rest.Instead(i))
	assert.Equal(t, len(s.plan.Sheet.Regions)-1, len(s.rest().Steps()))
}

// A tap's answer plans the rest anew, and each place as if it came next.
func BenchmarkFrom(b *testing.B) {
	for name, extras := range map[string]bench.Extras{"split": {}, "rings": {Tints: 1, Shades: 1, Wash: true, Neutral: true}} {
		for _, fill := range []bench.Fill{bench.OwnPiles, bench.FromWeaker} {
			b.Run(name+"/"+string(fill), func(b *testing.B) {
				set := bench.Usual(paint.Media()[1])
				set.Fill, set.Gaps = fill, true
				s := bench.Wheel(split(b), extras, set)
				plan, err := bench.Sketch(&s, set)
				require.NoError(b, err)
				st := bench.Fold(&s, set, []bench.Event{{ID: "1", Kind: bench.Begun, At: morning}})
				for b.Loop() {
					rest, err := st.From(morning, plan)
					require.NoError(b, err)
					for _, step := range rest.Steps()[1:] {
						rest.Instead(step.Region)
					}
				}
			})
		}
	}
}

// What a place really took can be told after its run has gone on: what it was painted with follows.
func TestWhatAPlaceTookIsToldLate(t *testing.T) {
	s := sit(t, triad(t), "gouache", func(set *bench.Settings) { set.Fill, set.Gaps = bench.FromWeaker, true })
	first := s.mixedStep()
	s.do(first)
	before := s.stands().Places[first.Region].Held
	for st := s.stands(); st.Wells[first.Paint.Well-1].Region == first.Region; st = s.stands() {
		s.do(s.rest().Steps()[0])
	}
	used := []bench.Used{}
	for _, of := range first.Counted.Counts {
		used = append(used, bench.Used{Paint: of.Paint.ID, Amount: of.Amount + 2})
	}
	s.tell(bench.Event{Kind: bench.Measured, Region: s.id(first.Region), Used: used})
	st := s.stands()
	assert.Greater(t, holds(st.Places[first.Region].Held), holds(before))
	assert.NotEqual(t, first.Region, st.Wells[first.Paint.Well-1].Region)
}
