// Package wheel builds colour wheels from primary systems: twelve slots, the
// pairs that fill their sections, rings of tints, shades and neutrals, schemes,
// and the same wheel in glazes.
package wheel

import (
	"cmp"
	_ "embed"
	"fmt"
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/internal/table"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/recipe"
)

// Kind is what stands in a slot.
type Kind uint8

// A primary is a paint as it comes; the secondary stands half way to the next,
// the tertiaries beside it.
const (
	Primary Kind = iota
	Secondary
	Tertiary
)

// SlotKinds lists them.
var SlotKinds = []Kind{Primary, Secondary, Tertiary}

var kindNames = [...]string{"primary", "secondary", "tertiary"}

// String is the word for the kind.
func (k Kind) String() string { return kindNames[k] }

// Slot is one twelfth of the wheel.
type Slot struct {
	Index int // where it stands, 0 on top, in the direction of the wheel
	Home  int // where it would stand clockwise with yellow on top
	Name  string
	// SetName is what it is called in the set of names, whatever the painter calls it.
	SetName string
	Kind    Kind
	Empty   bool // a role is missing, or only six slots are wanted
	path.Step
	// Halves are the paints of a split primary, the one that faces the slot
	// before it first; empty elsewhere.
	Halves []path.Step
	Jump   float64 // OKLab distance of brushed-out colours to the next slot that is not empty
	Jumps  bool    // whether that is a jump: over 1.6 times the median, and over 0.06
}

// Complement is the index of the slot across the wheel.
func (s Slot) Complement() int { return (s.Index + 6) % 12 }

// Section is the run from one primary to the next.
type Section struct {
	path.Pairing                // that fills it; A is nil when a role is missing
	Chosen       bool           // by the painter, not as the brightest
	ByArc        bool           // its tertiaries stand half way to the eye, and not in hue
	Others       []path.Pairing // the other pairings of its roles, the brightest first
}

// Empty says that nothing fills the section.
func (s *Section) Empty() bool { return s.A == nil }

// Options are a painter's choices for a wheel.
type Options struct {
	Spacing path.Spacing
	Names   string // "painters" (also when empty) or "printers"
	Called  OwnNames
	Top     bias.Role // on top; the first role when empty
	CCW     bool      // counter-clockwise
	Six     bool      // six slots for beginners: primaries and secondaries
	Raise   bool      // dark transparent paints are first raised with white
	Order   Order     // in which it is mixed
	TintBy  Additive  // what its tints are made with
	ShadeBy Additive
}

// Wheel is a system's twelve slots, and the sections they lie in.
type Wheel struct {
	System System
	Options
	Slots    [12]Slot   // by Index
	Sections [3]Section // from role k to the next, whatever is on top
	Median   float64    // of the jumps
	// Raised are the paints that were raised with white, by what they were.
	Raised map[string]*paint.Paint
	dark   *Darkest
}

//go:embed data/names.csv
var namesCSV string

// nameSets are slot names by set and roles.
var nameSets = func() map[string][12]string {
	out := map[string][12]string{}
	for _, row := range table.Rows(namesCSV) {
		out[row[0]+" "+row[1]] = [12]string(row[2:])
	}
	return out
}()

// NameSets are the sets of slot names.
var NameSets = []string{"painters", "printers"}

// ParseNames reads a name set.
func ParseNames(set string) (string, error) {
	if slices.Contains(NameSets, set) {
		return set, nil
	}
	return "", input.Errorf("unknown names %q: choose painters or printers", set)
}

// names are the slot names of a wheel; sets that a kind has not fall back to
// the painters'.
func (s System) names(set string) [12]string {
	roles := "ryb"
	if s.Kind == CMY {
		roles = "cmy"
	}
	if names, ok := nameSets[set+" "+roles]; ok {
		return names
	}
	return nameSets["painters "+roles]
}

// SecondaryNames are the painters' names of a kind's three secondaries.
func SecondaryNames(k SystemKind) [3]string {
	names := System{Kind: k}.names("painters")
	return [3]string{names[2], names[6], names[10]}
}

const (
	jumpFactor = 1.6
	leastJump  = 0.06
)

// Paths are those that the sections lie on, each once.
func (w *Wheel) Paths() (out []*path.Path) {
	for k := range w.Sections {
		if s := &w.Sections[k]; !s.Empty() && !slices.Contains(out, s.Path) {
			out = append(out, s.Path)
		}
	}
	return out
}

// Build works the wheel out.
func Build(s System, o Options) *Wheel {
	w := &Wheel{System: s, Options: o, Raised: map[string]*paint.Paint{}}
	if o.Raise {
		w.raise()
	}
	for k := range w.Sections {
		w.Sections[k] = w.section(k)
	}
	names := s.names(o.Names)
	for home := range 12 {
		slot := w.fill(home)
		slot.Home, slot.SetName = home, names[home]
		slot.Name = cmp.Or(o.Called[home], slot.SetName)
		slot.Empty = slot.Empty || o.Six && home%2 == 1
		slot.Index = w.place(home)
		w.Slots[slot.Index] = slot
	}
	w.measure()
	return w
}

// place is where a slot stands that clockwise with yellow on top would stand
// at home.
func (w *Wheel) place(home int) int {
	roles := w.System.Kind.Roles()
	top := max(0, slices.Index(roles[:], w.Top))
	at := home - 4*top
	if w.CCW {
		at = -at
	}
	return ((at % 12) + 12) % 12
}

// At is the slot that clockwise with yellow on top would stand at home.
func (w *Wheel) At(home int) *Slot { return &w.Slots[w.place(home)] }

// darkAsPainted is the L* under which a transparent paint, as it is painted, hides its hue.
const darkAsPainted = 30

// raise puts in each role what dark transparent paints are with so much white that their hue shows: as
// light as where their chroma is greatest, or as the median of the other primaries, whichever is less.
// Yellows stay as they are.
func (w *Wheel) raise() {
	in, err := paint.ParseMedium(paint.UsualMedium)
	if err != nil {
		panic(err) // it is in the table
	}
	var all []*paint.Paint
	for _, paints := range w.System.roles {
		for _, p := range paints {
			if !slices.Contains(all, p) {
				all = append(all, p)
			}
		}
	}
	raised := map[*paint.Paint]*paint.Paint{}
	for _, p := range all {
		m := p.Alone()
		look := m.AsPainted(in, false)
		if p.Hiding != "transparent" || p.Family == "yellow" || look.Lab().L >= darkAsPainted {
			continue
		}
		brightest := m.LetDown(p.Undertone().Share)
		if r, done := recipe.Raise(p, w.System.Rider(WhiteRider), min(lightness(&brightest), medianLightness(all, p))); done {
			raised[p], w.Raised[p.ID] = r, r
		}
	}
	for k, paints := range w.System.roles {
		w.System.roles[k] = slices.Clone(paints)
		for i, p := range paints {
			if r := raised[p]; r != nil {
				w.System.roles[k][i] = r
			}
		}
	}
	for k, pair := range w.System.chosen {
		if pair != nil {
			w.System.chosen[k] = &[2]*paint.Paint{w.raisedOr(pair[0]), w.raisedOr(pair[1])}
		}
	}
}

// medianLightness is the median lightness of paints but one; as light as can be where there is no other.
func medianLightness(all []*paint.Paint, but *paint.Paint) float64 {
	var out []float64
	for _, p := range all {
		if p != but {
			m := p.Alone()
			out = append(out, lightness(&m))
		}
	}
	if len(out) == 0 {
		return 100
	}
	slices.Sort(out)
	return (out[(len(out)-1)/2] + out[len(out)/2]) / 2
}

func (w *Wheel) raisedOr(p *paint.Paint) *paint.Paint {
	if r := w.Raised[p.ID]; r != nil {
		return r
	}
	return p
}

// section finds the pair that fills section k, and tries the others.
func (w *Wheel) section(k int) Section {
	s := w.System
	roles := s.Kind.Roles()
	next := (k + 1) % 3
	out := Section{Pairing: path.Pairing{Couple: path.Couple{RoleA: roles[k], RoleB: roles[next]}}}
	if len(s.roles[k]) == 0 || len(s.roles[next]) == 0 {
		return out
	}
	if s.Kind != Double && s.Kind != OwnSystem {
		out.A, out.B = s.facing(k)
		out.Pairing = out.Pair(w.Spacing)
		return out
	}
	all := path.PairAll(s.couples(k), w.Spacing)
	if len(all) == 0 {
		return out
	}
	path.SortBright(all)
	first := 0
	if want := s.chosen[k]; want != nil {
		for i, p := range all {
			if p.A.ID == want[0].ID && p.B.ID == want[1].ID {
				first, out.Chosen = i, true
			}
		}
	}
	out.Pairing = all[first]
	out.Others = slices.Delete(all, first, first+1)
	return out
}

// shown is the paint that a primary's slot shows: of a double or own system the
// one used by more of its two sections, or else the one of higher chroma.
func (w *Wheel) shown(k int) *paint.Paint {
	before, after := w.Sections[(k+2)%3].B, w.Sections[k].A
	switch {
	case before == nil && after == nil:
		if r := w.System.roles[k]; len(r) > 0 {
			return r[0]
		}
		return nil
	case before == nil:
		return after
	case after == nil || before.ID == after.ID:
		return before
	case before.Undertone().Chroma > after.Undertone().Chroma:
		return before
	}
	return after
}

// fill makes the slot of a home place.
func (w *Wheel) fill(home int) Slot {
	k, step := home/4, home%4
	if step == 0 {
		p := w.shown(k)
		if p == nil {
			return Slot{Empty: true}
		}
		slot := Slot{Step: alone(p)}
		if before, after := w.System.faces(k); before != after {
			slot.Step = alone(after)
			slot.Halves = []path.Step{alone(before), alone(after)}
		}
		return slot
	}
	kind := Tertiary
	if step == 2 {
		kind = Secondary
	}
	s := &w.Sections[k]
	if s.Empty() {
		return Slot{Kind: kind, Empty: true}
	}
	if step == 2 {
		return Slot{Kind: kind, Step: s.Middle}
	}
	if w.System.Kind == Double || w.System.Kind == OwnSystem {
		primary, own := w.shown(k), s.A
		if step == 3 {
			primary, own = w.shown((k+1)%3), s.B
		}
		if primary.ID != own.ID {
			return Slot{Kind: kind, Step: between(primary, s, w.System.names(w.Names)[4*k+2], w.Spacing)}
		}
	}
	steps, byArc := s.Path.SectionSteps(w.Spacing)
	s.ByArc = byArc
	return Slot{Kind: kind, Step: steps[step-1]}
}

// between is half way from a primary to a section's secondary, which is
// stirred first and then taken for a paint.
func between(primary *paint.Paint, s *Section, name string, spacing path.Spacing) path.Step {
	secondary, err := s.Middle.Parts.Stir(name, name)
	if err != nil {
		return s.Middle // a recipe that exists can be stirred
	}
	return path.New(primary, secondary).Middle(spacing)
}

// measure finds the jumps between slots that are not empty.
func (w *Wheel) measure() {
	var there []int
	for i := range w.Slots {
		if !w.Slots[i].Empty {
			there = append(there, i)
		}
	}
	var jumps []float64
	for n, i := range there {
		if len(there) < 2 {
			return
		}
		slot, next := &w.Slots[i], &w.Slots[there[(n+1)%len(there)]]
		slot.Jump = slot.leaving(w.CCW).Distance(next.arriving(w.CCW))
		jumps = append(jumps, slot.Jump)
	}
	var from float64
	w.Median, from = JumpsFrom(jumps)
	for _, i := range there {
		w.Slots[i].Jumps = w.Slots[i].Jump > from
	}
}

// JumpsFrom is the median of the OKLab distances round a wheel, and over what one of them
// is a jump. There must be some.
func JumpsFrom(distances []float64) (median, from float64) {
	sorted := slices.Sorted(slices.Values(distances))
	n := len(sorted)
	median = (sorted[(n-1)/2] + sorted[n/2]) / 2
	return median, max(jumpFactor*median, leastJump)
}

func alone(p *paint.Paint) path.Step {
	m := p.Alone()
	return path.Step{
		Ratio:   path.Ratio{Parts: recipe.Pure(p)},
		Mixture: m, Under: m.Undertone(), Brushed: m.BrushedOutColour(),
	}
}

// Because explains a slot's verdict in a painter's words.
func (w *Wheel) Because(index int) string {
	slot := &w.Slots[index]
	if slot.Empty && w.Six && slot.Kind == Tertiary {
		return "Six slots only: the tertiaries are left out."
	}
	if slot.Empty {
		return "A role is missing here, so nothing fills it."
	}
	if slot.Kind == Primary {
		return bias.Alone(slot.Parts[0].Paint)
	}
	s := &w.Sections[slot.Home/4]
	if s.Path.Indistinguishable() {
		return fmt.Sprintf("The %s and the %s are no different: there is nothing to step through.", s.A.ShortName(), s.B.ShortName())
	}
	because := bias.Because(s.A, s.B, s.RoleA, s.RoleB, &slot.Mixture)
	if s.ByArc && slot.Kind == Tertiary {
		because += " Set by hue it would look like its neighbour: it stands half way to the eye instead."
	}
	return because
}

// SectionOf is the section that a slot lies in; for a primary, the one after
// it, or where that is empty the one before.
func (w *Wheel) SectionOf(index int) *Section {
	home := w.Slots[index].Home
	if s := &w.Sections[home/4]; !s.Empty() || home%4 != 0 {
		return s
	}
	return &w.Sections[(home/4+2)%3]
}

// Lowest is the least retention between a section's first and last inner step.
func (w *Wheel) Lowest(section int) float64 {
	s := &w.Sections[section]
	if s.Empty() {
		return 0
	}
	return s.Pairing.Lowest(w.Spacing)
}

// leaving is the brushed-out colour of the side of a slot that faces the next
// one in the direction of the wheel, arriving that which faces the one before.
func (s *Slot) leaving(ccw bool) colour.OKLab {
	if len(s.Halves) == 2 && ccw {
		return s.Halves[0].Brushed
	}
	return s.Brushed
}

func (s *Slot) arriving(ccw bool) colour.OKLab {
	if len(s.Halves) == 2 && !ccw {
		return s.Halves[0].Brushed
	}
	return s.Brushed
}
