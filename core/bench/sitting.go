package bench

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// EventKind is what was done in a sitting.
type EventKind string

// What can be done.
const (
	Begun        EventKind = "begun"
	LaidOut      EventKind = "laid out"
	Mixed        EventKind = "mixed"
	Tested       EventKind = "tested"
	Painted      EventKind = "painted" // of a region that was painted before: a coat more
	Ran          EventKind = "ran"     // into a region, which is gone over when it is dry
	Skipped      EventKind = "skipped"
	Washed       EventKind = "washed"
	Rinsed       EventKind = "rinsed"
	WaterChanged EventKind = "water changed"
	Waited       EventKind = "waited"
	Measured     EventKind = "measured" // what a region really took
	StillWet     EventKind = "still wet"
	Noted        EventKind = "noted"
	Photographed EventKind = "photographed"
	Read         EventKind = "read"
	Paused       EventKind = "paused"
	Resumed      EventKind = "resumed"
	Undone       EventKind = "undone"
	Ended        EventKind = "ended"
)

// EventKinds lists them.
var EventKinds = []EventKind{Begun, LaidOut, Mixed, Tested, Painted, Ran, Skipped, Washed, Rinsed, WaterChanged, Waited, Measured, StillWet, Noted, Photographed, Read, Paused, Resumed, Undone, Ended}

// Event is one thing that was done in a sitting. It is never changed; it can be undone by
// another that names it.
type Event struct {
	ID       string // the client's; of two that happen at once the lesser comes first
	Kind     EventKind
	At       time.Time   // when it happened, by the server's clock
	Region   string      // id of the region; empty where it is of none
	Well     int         // 1 up; 0 for none
	Brush    int         // 1 or 2; 0 for the first
	Thorough bool        // of a wash
	Used     []Used      // of what was mixed as it was counted out; of what was measured as it really was
	Adds     bool        // of what was mixed: to what the well holds
	From     int         // the well of which a part was taken for what was mixed; 0 for none
	FromML   float64     // how much of it
	ML       float64     // of the pile that was mixed, as the plan has it; 0 where it is not known
	Text     string      // of a note
	Looks    *colour.Lab // of a test swatch, as it was read by eye, wet; nil where it was not
	Undoes   string      // what is taken back: an event by its id, or all of a tap by that of the tap
	Tap      string      // the tap that told it, which may tell several; empty where it stands alone
}

// tap is what an event is taken back by, with the others of its tap.
func (e *Event) tap() string { return cmp.Or(e.Tap, e.ID) }

// Says is what was done, in words.
func (e *Event) Says(s *Sheet) string {
	if i := s.Find(e.Region); e.Region != "" && i >= 0 {
		return string(e.Kind) + ": " + s.Regions[i].Label
	}
	return string(e.Kind)
}

// Used is how much of a paint was taken, or of its let-down, in the sitting's measure.
type Used struct {
	Paint  string // id
	Amount float64
	In     string // the paint it was let down in; empty for itself
	Thin   int    // parts of that to 1
}

// The limits of an event.
const (
	LongestID   = 64
	LongestNote = 500
	MostTaken   = 24
	MostEvents  = 5000 // of a sitting
)

// ofRegion are the kinds that are done to a region.
var ofRegion = []EventKind{Mixed, Tested, Painted, Ran, Skipped, Measured, StillWet}

// Check says what is wrong with an event of a sheet, with an input.Error.
func (e *Event) Check(s *Sheet) error {
	switch {
	case e.ID == "" || len(e.ID) > LongestID || len(e.Tap) > LongestID:
		return input.Errorf("an event has an id of 1 to %d characters, and its tap one of at most as many", LongestID)
	case !slices.Contains(EventKinds, e.Kind):
		return input.Errorf("unknown event %q", input.Clip(string(e.Kind)))
	case e.At.IsZero():
		return input.Errorf("%s: it has no time", e.Kind)
	case slices.Contains(ofRegion, e.Kind) && s.Find(e.Region) < 0:
		return input.Errorf("%s: there is no place %q on the sheet", e.Kind, input.Clip(e.Region))
	case e.Region != "" && s.Find(e.Region) < 0:
		return input.Errorf("there is no place %q on the sheet", input.Clip(e.Region))
	case e.From < 0 || e.From > 60 || !(e.FromML >= 0 && e.FromML <= 1000) || !(e.ML >= 0 && e.ML <= 1000):
		return input.Errorf("%s: there is no pile of %v ml of which %v ml are from well %d", e.Kind, e.ML, e.FromML, e.From)
	case e.Well < 0 || e.Well > 60 || e.Brush < 0 || e.Brush > 2:
		return input.Errorf("%s: there is no well %d with brush %d", e.Kind, e.Well, e.Brush)
	case e.Kind == Undone && e.Undoes == "", e.Kind != Undone && e.Undoes != "":
		return input.Errorf("what is taken back names what it takes back, and nothing else does")
	case len(e.Used) > MostTaken || e.Kind == Measured && len(e.Used) == 0:
		return input.Errorf("what a place took is said of 1 to %d paints", MostTaken)
	}
	for _, t := range e.Used {
		if !(t.Amount >= 0 && t.Amount <= 1000) {
			return input.Errorf("%s: an amount runs from 0 to 1000, and not to %v", e.Kind, t.Amount)
		}
		if (t.In == "") != (t.Thin == 0) || t.Thin < 0 || t.Thin > 999 || len(t.In) > LongestID {
			return input.Errorf("%s: a paint is let down in 1 to 999 parts of another", e.Kind)
		}
	}
	if err := e.looks(); err != nil {
		return err
	}
	if e.Kind == Noted {
		if _, err := text.Lines("a note", e.Text, LongestNote); err != nil {
			return input.Sentence(err)
		}
	}
	return nil
}

// Find is the index of a region by its id, -1 where there is none.
func (s *Sheet) Find(id string) int {
	return slices.IndexFunc(s.Regions, func(r Region) bool { return r.ID == id })
}

// Progress is how far a region has come.
type Progress struct {
	Coats   int
	Painted time.Time // the last coat
	DryAt   time.Time
	Skipped bool
	Ran     bool // a neighbour ran into it, and it was not gone over since
	Tested  bool
	// Held is what it was painted with, ml of each paint that its well held; nil for a paint as
	// it comes, or where it is not known.
	Held []paint.Part
	Told []Used // what its pile was said to be mixed from last
	well int    // that its pile was mixed in last, 1 up; 0 for none
}

// Well is what is in a well.
type Well struct {
	Region int // whose mixture it is, -1 for an empty one
	Since  time.Time
	Used   bool         // since it was rinsed
	Holds  []paint.Part // ml of each paint, let-downs opened
	// Seems is what it would hold if its paints were as strong as they are taken to be, by the
	// looks of a test swatch; nil where none was looked at.
	Seems []paint.Part
	// Unlike is the CIEDE2000 by which the swatch differs even from that.
	Unlike float64
	added  bool   // what went into it last, to something
	Told   []Used // what went into it last
	Off    bool   // that was measured, and is not what was counted out
}

// Sitting is where a sitting stands.
type Sitting struct {
	Begun, Ended time.Time // zero while it has not
	PausedAt     time.Time // zero while it goes on
	LaidOut      bool
	Places       []Progress // one for each region
	Wells        []Well     // the first is well 1
	Brushes      [2]int     // the region each painted last, -1 for a clean one
	Washes       int
	SinceWater   int     // washes since the water was changed
	Pace         float64 // of drying, over the plan's, as "still wet" taught it
	Notes        []Event // notes, photos and readings, in order
	Says         []string
	Swatches     []*Event // test swatches that were looked at, in order
	Back         []Back   // what taking back takes back, the last tap first; at most MostBack
	paints       map[string]*paint.Paint
	really       map[string][]Used      // what mixtures were measured to have taken, by the ids of their events
	opened       map[*Used][]paint.Part // what was told of amounts, in ml, let-downs opened
}

// Back is a tap that can be taken back, whole, and what is otherwise then: when it is, and
// those that stand before it in the list.
type Back struct {
	Tap     string
	Says    string           // what it told
	Places  map[int]Progress // by region: those that are otherwise
	LaidOut bool
	Paused  time.Time
	Ended   time.Time
}

// MostBack is how many taps are named that can be taken back, one after the other.
const MostBack = 10

// stillWetFor is how much longer, in shares of the drying time, paint is taken for wet
// that was wet when its time was over.
const stillWetFor = 0.25

// Fold is where a sitting stands after its events, in whatever order they come: they count
// by the time at which they happened, then by their ids, and each id once. What was undone,
// and not done again by undoing that, does not count.
func Fold(s *Sheet, set Settings, events []Event) Sitting {
	events = inOrder(events)
	out := fold(s, set, events, map[*Used][]paint.Part{})
	out.takeBack(s, set, events)
	return out
}

// fold is where a sitting stands after events in order, but for what can be taken back.
func fold(s *Sheet, set Settings, events []Event, opened map[*Used][]paint.Part) Sitting {
	out := Sitting{Places: make([]Progress, len(s.Regions)), Wells: make([]Well, set.Wells), Brushes: [2]int{-1, -1}, Pace: 1, paints: s.byID(), opened: opened}
	for i := range out.Wells {
		out.Wells[i].Region = -1
	}
	counts := counting(events)
	out.really = measuredOf(events, counts)
	for i := range events {
		e := &events[i]
		if !counts[e.ID] {
			if e.Kind == Mixed {
				out.keptPainting(s, e, events, counts)
			}
			continue
		}
		out.take(s, set, e)
	}
	return out
}

// takeBack finds the taps of events in order that can be taken back, the last first. A tap is
// said by what it told last: that it was painted, where it was washed and mixed for it before.
func (st *Sitting) takeBack(s *Sheet, set Settings, events []Event) {
	counts := counting(events)
	said := map[string]bool{}
	without := slices.Clone(events)
	for i := len(events) - 1; i >= 0 && len(st.Back) < MostBack; i-- {
		e := &events[i]
		if !counts[e.ID] || e.Kind == Begun || e.Kind == Undone || said[e.tap()] {
			continue
		}
		said[e.tap()] = true
		without = append(without, Event{ID: fmt.Sprintf("without %d", i), Kind: Undone, At: events[len(events)-1].At, Undoes: e.tap()})
		then := fold(s, set, without, st.opened)
		back := Back{Tap: e.tap(), Says: e.Says(s), Places: map[int]Progress{}, LaidOut: then.LaidOut, Paused: then.PausedAt, Ended: then.Ended}
		for k := range then.Places {
			if !then.Places[k].looksLike(&st.Places[k]) {
				back.Places[k] = then.Places[k]
			}
		}
		st.Back = append(st.Back, back)
	}
}

// looksLike says that two places look alike on the sheet.
func (p *Progress) looksLike(q *Progress) bool {
	return p.Coats == q.Coats && p.Painted.Equal(q.Painted) && p.DryAt.Equal(q.DryAt) && p.Skipped == q.Skipped && p.Ran == q.Ran && p.Tested == q.Tested
}

// inOrder are events by the time at which they happened, each once.
func inOrder(events []Event) []Event {
	events = slices.Clone(events)
	slices.SortFunc(events, func(a, b Event) int { return cmp.Or(a.At.Compare(b.At), cmp.Compare(a.ID, b.ID)) })
	seen := map[string]bool{}
	return slices.DeleteFunc(events, func(e Event) bool {
		again := seen[e.ID]
		seen[e.ID] = true
		return again
	})
}

// counting says which events count: those that no event that counts takes back.
func counting(events []Event) map[string]bool {
	undoneBy, taps := map[string][]string{}, map[string]string{}
	for i := range events {
		e := &events[i]
		taps[e.ID] = e.Tap
		if e.Kind == Undone {
			undoneBy[e.Undoes] = append(undoneBy[e.Undoes], e.ID)
		}
	}
	known, asking := map[string]bool{}, map[string]bool{}
	var count func(id string) bool
	count = func(id string) bool {
		if is, there := known[id]; there {
			return is
		}
		if asking[id] {
			return true // they take each other back: neither is believed
		}
		asking[id] = true
		is := !slices.ContainsFunc(undoneBy[id], count) && !slices.ContainsFunc(undoneBy[taps[id]], count)
		known[id] = is
		return is
	}
	for i := range events {
		count(events[i].ID)
	}
	return known
}

// keptPainting says that what was painted from a mixture that was taken back stays.
func (st *Sitting) keptPainting(s *Sheet, mixed *Event, events []Event, counts map[string]bool) {
	i := s.Find(mixed.Region)
	for k := range events {
		e := &events[k]
		if i >= 0 && e.Kind == Painted && counts[e.ID] && e.Region == mixed.Region && e.At.After(mixed.At) {
			st.Says = append(st.Says, fmt.Sprintf("The mixture of %s was taken back; what was painted with it stays.", s.Regions[i].Label))
			return
		}
	}
}

// take is what an event changes.
func (st *Sitting) take(s *Sheet, set Settings, e *Event) {
	i := -1
	if e.Region != "" {
		i = s.Find(e.Region)
	}
	brush := max(e.Brush, 1) - 1
	drying := s.Drying(set)
	dries := time.Duration(drying * st.Pace * float64(time.Minute))
	switch e.Kind {
	case Begun:
		if st.Begun.IsZero() {
			st.Begun = e.At
		}
	case LaidOut:
		st.LaidOut = true
	case Mixed:
		if i >= 0 && e.Well >= 1 && e.Well <= len(st.Wells) {
			st.mixed(s, set, e, i)
		}
	case Tested:
		if i >= 0 {
			st.tested(set, &s.Regions[i], e, i)
		}
	case Painted:
		if i >= 0 {
			p := &st.Places[i]
			p.Coats++
			p.Painted, p.DryAt, p.Skipped, p.Ran = e.At, e.At.Add(dries), false, false
			st.painted(s, set, e, i)
			st.Brushes[brush] = i
		}
	case Ran:
		if i >= 0 && st.Places[i].Coats > 0 {
			p := &st.Places[i]
			p.Ran, p.DryAt = true, later(p.DryAt, e.At.Add(dries)) // what ran in is wet from now on
		}
	case Skipped:
		if i >= 0 {
			st.Places[i].Skipped = true
		}
	case Washed:
		st.Brushes[brush] = -1
		st.Washes++
		st.SinceWater++
	case Rinsed:
		if e.Well >= 1 && e.Well <= len(st.Wells) {
			st.Wells[e.Well-1] = Well{Region: -1}
		}
	case WaterChanged:
		st.SinceWater = 0
	case Measured:
		if i >= 0 {
			st.measured(set, &s.Regions[i], e, i)
		}
	case StillWet:
		if i >= 0 && st.Places[i].Coats > 0 && drying > 0 {
			st.stillWet(&st.Places[i], e.At, drying)
		}
	case Noted, Photographed, Read:
		st.Notes = append(st.Notes, *e)
	case Paused:
		st.PausedAt = e.At
	case Resumed:
		st.PausedAt = time.Time{}
		for w := range st.Wells {
			if at := &st.Wells[w]; at.Region >= 0 && !workableAt(set, at.Since, e.At) {
				*at = Well{Region: -1, Used: at.Used}
			}
		}
	case Ended:
		st.Ended = e.At
	}
}

// stillWet lets a place be wet for longer, and learns from it: it dries at least so much
// slower, and so do those that are wet beside it.
func (st *Sitting) stillWet(p *Progress, now time.Time, drying float64) {
	longer := time.Duration(stillWetFor * drying * float64(time.Minute))
	if until := now.Add(longer); until.After(p.DryAt) {
		p.DryAt = until
	}
	if now.Before(p.Painted) {
		return
	}
	pace := p.DryAt.Sub(p.Painted).Minutes() / drying
	if pace <= st.Pace {
		return
	}
	st.Pace = min(pace, 10)
	for k := range st.Places {
		if q := &st.Places[k]; q.Coats > 0 && q.DryAt.After(now) {
			q.DryAt = later(q.DryAt, q.Painted.Add(time.Duration(st.Pace*drying*float64(time.Minute))))
		}
	}
}

func later(a, b time.Time) time.Time {
	if b.After(a) {
		return b
	}
	return a
}

// goesOn says that a region's pile is made from that of another, as runs are.
func (s *Sheet) goesOn(from, to int, fill Fill) bool {
	a, b := &s.Regions[from], &s.Regions[to]
	return (fill == FromWeaker || fill == FromStronger) && a.Section >= 0 && a.Section == b.Section && a.Main && b.Main
}

// workableAt says that a pile mixed at one time can still be painted with at another.
func workableAt(set Settings, since, now time.Time) bool {
	limit := set.Workable()
	return limit == 0 || now.Sub(since).Minutes() <= limit
}

// Done says that nothing is left to paint.
func (st *Sitting) Done() bool {
	for i := range st.Places {
		if st.left(i) {
			return false
		}
	}
	return true
}

// standing is where a sitting stands, for the search: minutes are from now.
type standing struct {
	done   regions
	dry    []float64
	brush  [2]int
	washes int // since the water was changed
	piles  int
	since  [3]float64 // of the runs that go on
	mended regions    // whose pile is brought nearer first
	wells  []int      // what each holds, a region or -1
	used   []int      // those that were mixed in since they were rinsed
	filling
}

// From is the plan from where a sitting stands: what is left, in the order of before
// unless another is quicker. Minutes are from now. The error is an input.Error.
func (st *Sitting) From(now time.Time, before *Plan) (*Plan, error) {
	s, set := before.Sheet, before.Settings
	set.Pace *= st.Pace
	out := &Plan{Sheet: s, Settings: set, Fill: before.Fill, Why: before.Why, own: before.own}
	p, best, low, err := st.rest(now, before, set, false)
	if err == nil && best == nil {
		// A run that is under way cannot be kept: the rest has piles of its own.
		p, best, low, err = st.rest(now, before, set, true)
	}
	switch {
	case err != nil:
		return nil, err
	case best == nil:
		return nil, fmt.Errorf("no order was found for what is left") // own piles can always be painted
	}
	out.Minutes, out.Low = cost{best.t, 0}.whole(), low.whole()
	out.Proved = !low.less(cost{best.t, best.washes})
	out.Washes = best.washes - p.from.washes
	for _, at := range best.order() {
		out.Order = append(out.Order, at.job)
	}
	out.Counted, out.parted, out.Remedies, out.rest = p.from.counted, p.from.parted, p.from.remedies, p
	out.act(p, best)
	if st.LaidOut {
		out.Actions = out.Actions[1:]
	}
	for i := range st.Places {
		out.AllDry = max(out.AllDry, p.from.dry[i])
	}
	return out, nil
}

// rest is the best order for what is left; nil where none was found. Without runs every
// mixture that is left has a pile of its own.
func (st *Sitting) rest(now time.Time, before *Plan, set Settings, withoutRuns bool) (p *problem, best *state, low cost, err error) {
	f := st.filling(now, before, set, withoutRuns)
	if p, err = newProblem(before.Sheet, set, before.Fill, f.gone, f.counted, st.Places); err != nil {
		return nil, nil, low, err
	}
	p.from = st.standing(now, set, f)
	p.resume()
	var left []int
	for _, i := range before.Order {
		if !p.from.done.has(i) {
			left = append(left, i)
		}
	}
	best, low, _ = p.solve(true, p.follow(left))
	if best != nil {
		best = p.readyFirst(best)
	}
	return p, best, low, nil
}

// readyFirst is an order in which what stands mixed comes first, where that costs nothing.
func (p *problem) readyFirst(best *state) *state {
	var order, rest []int
	for _, at := range best.order() {
		if at.by != 0 {
			return best // with two brushes it is left as it is
		}
		if p.from.ready.has(at.job) {
			order = append(order, at.job)
		} else {
			rest = append(rest, at.job)
		}
	}
	if len(order) == 0 {
		return best
	}
	other := p.follow(append(order, rest...))
	if other == nil || (cost{best.t, best.washes}).less(cost{other.t, other.washes}) {
		return best
	}
	return other
}

// standing is where the search begins.
func (st *Sitting) standing(now time.Time, set Settings, of filling) *standing {
	f := &standing{dry: make([]float64, len(st.Places)), brush: st.Brushes, washes: st.SinceWater, filling: of}
	if set.Brushes == 1 {
		f.brush[1] = -1
	}
	minutes := func(t time.Time) float64 { return t.Sub(now).Minutes() }
	for i := range st.Places {
		if !st.left(i) {
			f.done = f.done.with(i)
		}
		if at := &st.Places[i]; at.Coats > 0 {
			f.dry[i] = max(0, minutes(at.DryAt))
		}
	}
	for n := range st.Wells {
		w := &st.Wells[n]
		holds := -1
		if w.holding(set, now) {
			holds = w.Region
		}
		if w.Used {
			f.piles++
			f.used = append(f.used, n)
		}
		f.wells = append(f.wells, holds)
	}
	for k, well := range of.well {
		if well > 0 {
			f.since[k] = minutes(st.Wells[well-1].Since)
		}
	}
	for i := range of.remedies {
		if of.remedies[i][0].Kind != AsItIs {
			f.mended = f.mended.with(i)
		}
	}
	return f
}

// resume fits the jobs to where a sitting stands: what is mixed is not mixed again, unless it is
// brought nearer, and what is painted of a run is no step of it any more.
func (p *problem) resume() {
	for i := range p.jobs {
		if j := &p.jobs[i]; p.from.ready.has(i) {
			j.mix, j.well = 0, false
			if p.from.mended.has(i) {
				j.mix = mixTime * p.hand
			}
		}
	}
	p.least = 0
	p.left, p.piles = 0, p.from.piles
	for i := range p.jobs {
		if p.from.done.has(i) {
			continue
		}
		p.left++
		if p.jobs[i].well {
			p.piles++
		}
	}
}
