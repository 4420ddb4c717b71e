package studio

import (
	"context"
	"slices"
	"strings"
	"time"

	"gyrophane/core/bench"
	"gyrophane/core/input"
	"gyrophane/core/journal"
	"gyrophane/core/paint"
	"gyrophane/core/paper"
	"gyrophane/core/text"
	"gyrophane/core/wheel"
	"gyrophane/files"
	"gyrophane/store"
)

// PlaceRead is a place of a sitting as it was computed and as it was read last.
type PlaceRead struct {
	Region int
	journal.AccountPlace
	Expected *Expectation // by the painter, before the cover was lifted; nil where nothing was
}

// Expectation is what a painter expected of a slot, and what became of it.
type Expectation struct {
	journal.Prediction
	Computed journal.SlotOutcome
	Painted  *journal.Score // nil where it is not known what was painted
	CameOut  string         // as painted: its hue and verdict, in words; empty where that is not known
	At       time.Time
}

// SittingJournal is what came of a sitting: each place, and what the tubes seem to be.
type SittingJournal struct {
	Sitting  Sitting
	Places   []PlaceRead
	Photos   []KeptPhoto
	Overall  []journal.Cause // of all places together
	Bent     []string        // what the photos that it was read from do to colours, a sentence each
	Jumps    []journal.Jump  // between painted steps
	Dried    []string        // what drying did, a sentence each; none where too little was read wet and dry
	Suggests []string        // what to do otherwise next time, a sentence each
	Learning Learning
	Takings  []Taking         // of its tubes, the last one first
	samples  []journal.Sample // one for each explained place, in their order
}

// SittingJournal explains what was read of a painter's sitting, with the paints as they
// were when it began, and learns from it and the others that were painted with its tubes;
// nothing is kept of that.
func (s *Studio) SittingJournal(ctx context.Context, painter store.Painter, id int64) (SittingJournal, error) {
	out, err := s.explained(ctx, painter, id)
	if err != nil {
		return out, err
	}
	now, tubes, err := s.paintsNow(ctx, painter)
	if err != nil {
		return out, err
	}
	var labels []string
	var explained []journal.Explained
	for _, p := range out.Places {
		if p.Explained != nil {
			explained = append(explained, *p.Explained)
			labels = append(labels, out.Sitting.Plan.Sheet.Regions[p.Region].Label)
		}
	}
	out.Dried = dried(&out)
	out.Jumps = jumps(&out, now)
	answers, err := s.answersTo(ctx, painter, id)
	if err != nil {
		return out, err
	}
	out.Suggests = slices.DeleteFunc(journal.NextTime(labels, explained, out.Jumps), func(says string) bool { return answers.leave(says) == "" })
	if out.Learning, err = s.learn(ctx, painter, &out, now, tubes); err != nil {
		return out, err
	}
	out.askToo(now)
	if out.Takings, err = s.takingsOf(ctx, painter, &out.Learning, id); err != nil {
		return out, err
	}
	out.Learning.Kept = out.keptAlready()
	return out, nil
}

// keptAlready says that what its readings tell of the tubes was taken into the box, and that no more was read since.
func (came *SittingJournal) keptAlready() bool {
	l := came.Learning.Learned
	return l != nil && slices.ContainsFunc(came.Takings, func(t Taking) bool {
		return t.UndoneAt == nil && t.SittingID != nil && *t.SittingID == came.Sitting.ID && t.Readings == l.Samples && slices.ContainsFunc(t.Strengths, func(s store.TakenStrength) bool { return s.Known != nil })
	})
}

// askToo adds what learning from other sittings as well leaves open, of the paints as the sheet names them:
// the painter answers it at this sitting.
func (came *SittingJournal) askToo(now map[string]*paint.Paint) {
	if came.Learning.Learned == nil {
		return
	}
	for _, c := range journal.Unsettled(came.Learning.Learned.Overall) {
		if c.Paint != nil {
			for _, p := range came.Sitting.Plan.Sheet.Paints() {
				if is := now[p.ID]; is != nil && is.ID == c.Paint.ID {
					c.Paint = p
				}
			}
		}
		if !slices.ContainsFunc(came.Overall, func(o journal.Cause) bool { return o.Same(c) }) {
			came.Overall = append(came.Overall, c)
		}
	}
}

// explained is a sitting with its places as they were read, explained, and what was
// expected of them.
func (s *Studio) explained(ctx context.Context, painter store.Painter, id int64) (out SittingJournal, err error) {
	if out.Sitting, err = s.lookedBack(ctx, painter, id); err != nil {
		return out, err
	}
	reads, err := s.readsOf(ctx, painter, &out.Sitting)
	if err != nil {
		return out, err
	}
	out.Photos = reads.Photos
	told := placesOf(&out.Sitting, reads)
	out.Places, out.samples, out.Overall = told.places, told.samples, told.dry.Overall
	for _, b := range told.dry.Photos {
		if says := b.Says(); says != "" {
			out.Bent = append(out.Bent, says)
		}
	}
	return out, s.expected(ctx, painter, &out)
}

// placesTold are the places of a sitting as they were read and explained.
type placesTold struct {
	places  []PlaceRead
	samples []journal.Sample // one for each explained place, in their order
	dry     journal.Explanation
	wet     journal.Explanation
}

// placesOf are the places of a sitting with the last that was read of each, what photos did to that taken
// out, and why the dry ones differ.
func placesOf(sitting *Sitting, reads Reads) (out placesTold) {
	plan := sitting.Plan
	var of []int
	var wet []journal.Sample
	for i := range plan.Sheet.Regions {
		one := readOf(plan, i, reads.Readings)
		out.places = append(out.places, one)
		if one.Dry != nil && one.Dry.Doubt == "" {
			out.samples, of = append(out.samples, sampleOf(plan, &sitting.Stands, i, one.Dry)), append(of, i)
		}
		if one.Wet != nil && one.Wet.Doubt == "" && one.Wet.Photo != nil {
			wet = append(wet, sampleOf(plan, &sitting.Stands, i, one.Wet))
		}
	}
	out.dry = journal.Explain(out.samples, sitting.Medium, sitting.Sure)
	out.wet = journal.Explain(wet, sitting.Medium, sitting.Sure)
	taken := func(r *journal.Reading, by *journal.Explanation) *journal.Reading {
		if r == nil {
			return nil
		}
		out := by.Taken(*r)
		return &out
	}
	for i := range out.places {
		p := &out.places[i]
		p.Dry, p.Wet = taken(p.Dry, &out.dry), taken(p.Wet, &out.wet)
	}
	for n := range out.dry.Places {
		out.places[of[n]].Explained = &out.dry.Places[n]
	}
	return out
}

// expected finds what the painter expected of each slot last before the sitting began, and
// scores it by what was painted.
func (s *Studio) expected(ctx context.Context, painter store.Painter, of *SittingJournal) error {
	said, err := s.store.Predictions(ctx, painter.ID, of.Sitting.Wheel)
	if err != nil {
		return err
	}
	for i := range of.Places {
		p := &of.Places[i]
		r := &of.Sitting.Plan.Sheet.Regions[p.Region]
		k := slices.IndexFunc(said, func(one store.Prediction) bool {
			return r.Main && r.Kind != wheel.Primary && one.Home == r.Home && !one.CreatedAt.After(of.Sitting.Began)
		})
		if k < 0 {
			continue
		}
		prediction, err := journal.ParsePrediction(said[k].HueWord, said[k].Verdict)
		if err != nil {
			return err
		}
		p.Expected = &Expectation{Prediction: prediction, Computed: said[k].Outcome, At: said[k].CreatedAt}
		if e := p.Explained; e != nil && e.Painted != nil {
			u := e.Painted.Undertone()
			score := prediction.Against(u)
			p.Expected.Painted, p.Expected.CameOut = &score, u.HueWord()+", "+u.Verdict.String()
		}
	}
	return nil
}

// dried says hue by hue what drying did to what was read wet and dry.
func dried(of *SittingJournal) []string {
	var wet, dry []journal.Placed
	for n, p := range of.Places {
		r := &of.Sitting.Plan.Sheet.Regions[p.Region]
		if p.Wet == nil || p.Dry == nil || p.Wet.Doubt != "" || p.Dry.Doubt != "" || !r.Main {
			continue
		}
		one := journal.Placed{Home: n, Hue: hueOf(r), Colour: p.Wet.Lab}
		wet = append(wet, one)
		one.Colour = p.Dry.Lab
		dry = append(dry, one)
	}
	if len(wet) == 0 {
		return nil
	}
	return journal.Differ(dry, wet)
}

// hueOf is the hue that a slot of a wheel is spoken of as; empty elsewhere.
func hueOf(r *bench.Region) string {
	if r.Home < 0 {
		return ""
	}
	slot, _, _ := strings.Cut(r.ID, "/") // whatever the painter calls it; of a half, without its paint
	return journal.HueOf(slot)
}

// jumps are those of a wheel's ring as it was read dry.
func jumps(of *SittingJournal, now map[string]*paint.Paint) []journal.Jump {
	sheet := of.Sitting.Plan.Sheet
	var ring []journal.Step
	var read []bool
	for _, p := range of.Places {
		r := &sheet.Regions[p.Region]
		if sheet.Kind != "wheel" || !r.Main {
			continue
		}
		one := journal.Step{Label: r.Label, Home: r.Home, Paints: r.Recipe.Plain()}
		if p.Dry != nil && p.Dry.Doubt == "" {
			one.Lab = p.Dry.Lab
		}
		ring, read = append(ring, one), append(read, p.Dry != nil && p.Dry.Doubt == "")
	}
	return journal.Jumps(ring, func(i int) bool { return read[i] }, of.Sitting.Medium, func(p *paint.Paint) *paint.Paint {
		if is := now[p.ID]; is != nil {
			return is
		}
		return p
	})
}

// SayNextTime keeps what to do otherwise when a sitting's wheel is painted again, where it
// still is what it was when the painter looked.
func (s *Studio) SayNextTime(ctx context.Context, painter store.Painter, id int64, was, says string) error {
	says, err := text.Lines("what to do next time", says, bench.LongestNote)
	if err != nil {
		return input.Sentence(err)
	}
	return s.store.SayNextTime(ctx, painter.ID, id, was, says)
}

// Reminder is what a painter wanted to do otherwise when a wheel was painted last.
type Reminder struct {
	Sitting int64
	At      time.Time
	Says    string
}

// Reminder is that of a wheel's last sitting that has one, without what was done about it since; nil
// where none has, or all of it was done.
func (s *Studio) Reminder(ctx context.Context, painter store.Painter, wheelID int64) (*Reminder, error) {
	all, err := s.store.Sittings(ctx, painter.ID)
	for _, one := range all {
		if one.WheelID == wheelID && one.NextTime != "" {
			answers, err := s.answersTo(ctx, painter, one.ID)
			if err != nil {
				return nil, err
			}
			if says := answers.leave(one.NextTime); says != "" {
				return &Reminder{one.ID, one.CreatedAt, says}, nil
			}
			return nil, nil
		}
	}
	return nil, err
}

// answers are what was done since a sitting about what it asks for.
type answers struct {
	taken   []string // paints whose strengths were taken into the box, by their short names
	redrawn bool     // its wheel has other strengths now
}

func (a *answers) leave(says string) string { return journal.Unanswered(says, a.taken, a.redrawn) }

// answersTo finds what was done since a painter's sitting about what it asks for.
func (s *Studio) answersTo(ctx context.Context, painter store.Painter, id int64) (out answers, err error) {
	kept, _, err := s.store.Sitting(ctx, painter.ID, id)
	if err != nil {
		return out, err
	}
	plan, err := s.begun(kept)
	if err != nil {
		return out, err
	}
	takings, err := s.store.Takings(ctx, painter.ID)
	if err != nil {
		return out, err
	}
	now, tubes, err := s.paintsNow(ctx, painter)
	if err != nil {
		return out, err
	}
	for _, p := range plan.Sheet.Paints() {
		is := now[p.ID]
		if is == nil {
			continue
		}
		for _, t := range takings {
			of := func(one store.TakenStrength) bool { return one.TubeID == tubes[is.ID].ID && !one.Kept }
			if t.UndoneAt == nil && t.CreatedAt.After(kept.CreatedAt) && slices.ContainsFunc(t.Strengths, of) {
				out.taken = append(out.taken, p.ShortName())
				break
			}
		}
	}
	if kept.WheelID == 0 {
		return out, nil
	}
	_, system, err := s.KeptSystem(ctx, painter, kept.WheelID)
	if err != nil {
		return out, err
	}
	for _, p := range plan.Sheet.Paints() {
		other := func(q *paint.Paint) bool { return q.ShortName() == p.ShortName() && q.Strength() != p.Strength() }
		out.redrawn = out.redrawn || slices.ContainsFunc(system.Paints(), other)
	}
	return out, nil
}

// readOf is a place with the last that was read of it.
func readOf(plan *bench.Plan, i int, reads []journal.Dated) PlaceRead {
	r := &plan.Sheet.Regions[i]
	look := r.Read(plan.Settings.Medium, false)
	out := PlaceRead{Region: i, AccountPlace: journal.AccountPlace{Computed: look.Lab()}}
	for k := range reads {
		switch read := &reads[k]; {
		case read.Region != r.ID:
		case read.Wet:
			out.Wet = &read.Reading
		default:
			out.Dry = &read.Reading
		}
	}
	return out
}

// sampleOf is a place as it was read, of what its well held when it was painted; of its recipe
// where that is not known.
func sampleOf(plan *bench.Plan, stands *bench.Sitting, i int, read *journal.Reading) journal.Sample {
	r, scale := &plan.Sheet.Regions[i], plan.Settings.Scale
	out := journal.Sample{Region: r.ID, Film: r.ReadFilm(plan.Settings.Medium), Lab: read.Lab, Noise: journal.NoiseOf(read.Source, read.Spread), Photo: read.Photo, Wet: read.Wet, Parts: r.Recipe.Plain()}
	at := stands.Places
	if held := at[i].Held; held != nil {
		out.Parts = held
	}
	for _, k := range r.Beneath {
		if at[k].Coats == 0 || at[k].Painted.After(at[i].Painted) {
			continue // it was left out: this place lies on what is below that
		}
		layer := journal.LayerOf(&plan.Sheet.Regions[k])
		if held := at[k].Held; held != nil {
			layer.Parts = held
		}
		out.Under = append(out.Under, layer)
	}
	out.Strays = straysOf(scale, plan.Settings.Need(r), out.Parts)
	return out
}

// Account is a painter's sitting whole, as it leaves the house.
func (s *Studio) Account(ctx context.Context, painter store.Painter, id int64) (journal.Account, error) {
	came, err := s.SittingJournal(ctx, painter, id)
	if err != nil {
		return journal.Account{}, err
	}
	reads, err := s.readsOf(ctx, painter, &came.Sitting)
	if err != nil {
		return journal.Account{}, err
	}
	at := &came.Sitting
	out := journal.Account{Name: at.Name, Medium: at.Medium, Sheet: at.Plan.Sheet, Began: at.Began, Ended: at.Ended, NextTime: at.NextTime, Events: at.Events}
	if came.Learning.Working {
		out.Says = []string{stillWorking}
	} else if l := came.Learning.Learned; l != nil && (l.Proposed || len(journal.Unsettled(l.Overall)) > 0) {
		out.Says = l.Says()
	}
	out.Says = append(slices.Clone(came.Bent), out.Says...)
	for _, e := range at.Stands.Notes {
		if e.Kind == bench.Noted {
			out.Notes = append(out.Notes, e.Text)
		}
	}
	for _, p := range came.Places {
		if p.Coats = at.Stands.Places[p.Region].Coats; p.Expected != nil {
			p.AccountPlace.Expected = p.Expected.HueWord + ", " + p.Expected.Verdict.String()
		}
		out.Places = append(out.Places, p.AccountPlace)
	}
	out.Readings = reads.Readings
	return out, nil
}

// SittingPaper lays what came of a painter's sitting out on paper.
func (s *Studio) SittingPaper(ctx context.Context, painter store.Painter, id int64, f paper.Format) (title string, pages []paper.Page, err error) {
	a, err := s.Account(ctx, painter, id)
	if err != nil {
		return "", nil, err
	}
	return a.Name, paper.Sitting(&a, f, measured()), nil
}

// SlotsRead are the readings of a file beside the places of a painter's sitting, and how
// many of them are wrong.
type SlotsRead struct {
	Sheet *bench.Sheet
	In    paint.Medium
	Rows  []files.SlotRow
	Wrong int
}

// ReadSlots reads a file of readings of a painter's sitting, and keeps them where that is
// asked for: all but those that are left out, by their index, or none where one of those is
// wrong.
func (s *Studio) ReadSlots(ctx context.Context, painter store.Painter, id int64, data []byte, leaveOut []int, keep bool) (out SlotsRead, err error) {
	plan, err := s.sheetOf(ctx, painter, id)
	if err != nil {
		return out, err
	}
	out.Sheet, out.In = plan.Sheet, plan.Settings.Medium
	if out.Rows, err = files.ReadSlots(data, plan.Sheet, out.In); err != nil {
		return out, err
	}
	var reads []NewReading
	for i, row := range out.Rows {
		switch {
		case slices.Contains(leaveOut, i):
		case row.Problem != "":
			out.Wrong++
		default:
			r := row.Reading
			reads = append(reads, NewReading{Region: r.Region, Lab: r.Lab, Source: r.Source, Wet: r.Wet, Spread: r.Spread, Doubt: r.Doubt})
		}
	}
	switch {
	case !keep:
		return out, nil
	case out.Wrong > 0:
		return out, input.Errorf("Nothing was kept: rows that are wrong must be mended in the file, or left out.")
	case len(reads) == 0:
		return out, input.Errorf("Nothing was kept: every row was left out.")
	}
	return out, s.KeepReadings(ctx, painter, id, reads)
}
