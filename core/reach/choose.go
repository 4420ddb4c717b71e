package reach

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"

	"gyrophane/core/bias"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/wheel"
)

// Choice is a system that was chosen, and how far it reaches.
type Choice struct {
	System wheel.System
	Reach  Reach
}

// Table is what every two of some paints reach, worked out once, from which the
// best system of a kind is found exactly: every system is looked at.
type Table struct {
	paints []*paint.Paint
	roles  [3][]int // places among the paints, as each plays by its undertone
	kind   []int    // of each paint: the same for tubes of the same K and S
	kinds  int
	ways   []way // of every two kinds, the greater one's with the lesser ones in turn
}

// way is what is reached between two kinds of paint.
type way struct {
	reach Reach
	clean bins
}

var nothing way

// way between two paints, by their places; nothing is reached between two tubes
// of the same.
func (t *Table) way(i, j int) *way {
	a, b := t.kind[i], t.kind[j]
	switch {
	case a == b:
		return &nothing
	case a < b:
		a, b = b, a
	}
	return &t.ways[a*(a-1)/2+b]
}

// atOnce is how many pairs are followed before the context is looked at again,
// and how many paths are in memory at once: some hundredths of a second.
const atOnce = 64

// How much is looked at for an exact answer: pairs followed for a table, and
// systems made of its paints (double ones have two and a half times the ways).
// Either takes some ten seconds.
const (
	mostPairs         = 30_000
	mostSystems       = 50_000_000
	mostDoubleSystems = 20_000_000
)

// TooMany says that an exact answer would take too long.
type TooMany struct{ Sentence string }

func (t TooMany) Error() string { return t.Sentence }

// NewTable follows every two paints that could stand in a system together, until
// the context ends, so many at once; report, when given, is told how far it is. Paints without a role
// (whites, blacks, greens and the like) are left out, and tubes of the same K and
// S are followed once. The error is TooMany when they are.
func NewTable(ctx context.Context, paints []*paint.Paint, workers int, report Report) (*Table, error) {
	t, first := sorted(paints)
	all := t.kinds * (t.kinds - 1) / 2
	if all > mostPairs {
		return nil, TooMany{fmt.Sprintf("%d different paints make %d pairs, too many for an exact answer: leave some out", t.kinds, all)}
	}
	var couples []path.Couple
	for i, p := range first {
		for _, q := range first[:i] {
			couples = append(couples, path.Couple{A: q, B: p})
		}
	}
	t.ways = make([]way, 0, all)
	for some := range slices.Chunk(couples, atOnce) {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		report.send(PairsStage, len(t.ways), all)
		for _, p := range path.PairSome(some, path.ByHue, workers) {
			r := OfPath(p.Path)
			t.ways = append(t.ways, way{r, r.from(paint.CleanFrom())})
		}
	}
	return t, nil
}

// sorted is a table in which nothing is followed yet, and the first paint of each
// kind.
func sorted(paints []*paint.Paint) (t *Table, first []*paint.Paint) {
	t = &Table{}
	roles := wheel.RYB.Roles()
	known := map[uint64]int{}
	for _, p := range paints {
		k := slices.Index(roles[:], bias.RoleAmong(p))
		if k < 0 {
			continue
		}
		print := p.Fingerprint()
		if _, there := known[print]; !there {
			known[print] = len(first)
			first = append(first, p)
		}
		t.roles[k] = append(t.roles[k], len(t.paints))
		t.paints, t.kind = append(t.paints, p), append(t.kind, known[print])
	}
	t.kinds = len(first)
	return t, first
}

// Size is how many different paints are in the table.
func (t *Table) Size() int { return t.kinds }

// Criteria is what a system should be chosen for.
type Criteria struct {
	Kind     wheel.SystemKind // RYB, Split or Double
	Contains []string         // paints that must be in it, by id
	Among    []string         // only these, by id; all of the table when empty
	Careful  bool             // no paint whose class carries a special hazard
	Lasting  bool             // only paints that keep their colour in light, I and II
	Without  []string         // none of these classes of caution
	// Prices, when given, ask for the cheapest of the systems that reach nearly as
	// many hues cleanly as the best; a paint without a price is left out.
	Prices map[string]float64
	// Fewest asks for the fewest tubes instead: a role of a split or double system
	// may then have one paint alone.
	Fewest bool
	Most   int // how many choices are wanted, the best first
	// Workers is how many fours are held against wanted colours at once, at least 1.
	Workers int
	// Report, when given, is told how far a search is. It may be called from several
	// goroutines at once.
	Report Report
}

// Report is told how far a search is; nil when nobody listens.
type Report func(Progress)

// Progress is how far a search is: so many of so many things are looked at.
type Progress struct {
	Stage    Stage
	Done, Of int
}

// Stage is what a search looks at one after the other.
type Stage string

// What is looked at: pairs of paints, whole systems, paints that could be bought, fours of paints
// held against the wanted colours.
const (
	PairsStage   Stage = "pairs"
	SystemsStage Stage = "systems"
	PaintsStage  Stage = "paints"
	RecipesStage Stage = "fours"
)

// send tells how far a search is.
func (t Report) send(at Stage, done, of int) {
	if t != nil {
		t(Progress{at, done, of})
	}
}

// nearly is the share of the best one's clean hues that a cheaper system must
// keep.
const nearly = 0.95

// filling is what may fill a role: one paint, or two of which the first faces
// the role before.
type filling struct {
	before, after int
	within        bins // reached cleanly between the two
}

// Best are the systems that reach the most of the circle cleanly; among those
// the brightest on the mean. With prices it
// is the cheapest ones that reach nearly as much, or those of the fewest tubes.
// It ends with the context.
func (t *Table) Best(ctx context.Context, w Criteria) ([]Choice, error) {
	if w.Fewest {
		w.Prices = map[string]float64{}
		for _, p := range t.paints {
			w.Prices[p.ID] = 1
		}
	}
	fill, err := t.fillings(w)
	if err != nil {
		return nil, err
	}
	f := finder{t: t, double: w.Kind == wheel.Double, most: max(1, w.Most)}
	if w.Prices != nil {
		top := finder{t: t, double: f.double, most: 1}
		if err := top.lookAt(ctx, w, fill); err != nil {
			return nil, err
		}
		f.least, f.prices = int(math.Ceil(nearly*float64(top.best[0].clean))), w.Prices
	}
	if err := f.lookAt(ctx, w, fill); err != nil {
		return nil, err
	}
	var out []Choice
	for _, c := range f.best {
		s, err := t.system(w.Kind, c.fill)
		if err != nil {
			return nil, err
		}
		out = append(out, Choice{s, f.reach(c.fill)})
	}
	return out, nil
}

// system is the system that fillings make.
func (t *Table) system(kind wheel.SystemKind, fill [3]filling) (wheel.System, error) {
	var roles [3][]*paint.Paint
	for k, x := range fill {
		roles[k] = []*paint.Paint{t.paints[x.before]}
		if x.after != x.before {
			roles[k] = append(roles[k], t.paints[x.after])
		}
	}
	return wheel.NewSystem(kind, roles)
}

// lookAt looks at every system that the fillings make, until the context ends.
func (f *finder) lookAt(ctx context.Context, w Criteria, fill [3][]filling) error {
	done, of := 0, len(fill[0])*len(fill[1])*len(fill[2])
	if err := countable(of, f.double); err != nil {
		return err
	}
	for _, y := range fill[0] {
		for _, r := range fill[1] {
			if err := ctx.Err(); err != nil {
				return err
			}
			w.Report.send(SystemsStage, done, of)
			done += len(fill[2])
			part := f.section(y, r).or(y.within).or(r.within)
			for _, b := range fill[2] {
				all := part.or(f.section(r, b)).or(f.section(b, y)).or(b.within)
				f.offer([3]filling{y, r, b}, all)
			}
		}
	}
	return nil
}

func countable(systems int, double bool) error {
	if systems > mostSystems || double && systems > mostDoubleSystems {
		return TooMany{fmt.Sprintf("so many paints make %d systems of this kind, too many for an exact answer: leave some out", systems)}
	}
	return nil
}

// CheckSize says before anything is followed whether the systems that a criteria
// makes of some paints can all be looked at; the error is TooMany when not.
func (w Criteria) CheckSize(paints []*paint.Paint) error {
	t, _ := sorted(paints)
	missing, systems := slices.Clone(w.Contains), 1
	for k := range t.roles {
		role, must := t.candidates(w, k, &missing)
		switch n := len(role); {
		case w.Kind == wheel.RYB && len(must) == 0:
			systems *= n
		case w.Kind != wheel.RYB && len(must) == 0:
			systems *= n * (n - 1) / 2
		case w.Kind != wheel.RYB && len(must) == 1:
			systems *= n - 1
		}
	}
	return countable(systems, w.Kind == wheel.Double)
}

// candidates are the paints that a criteria lets stand in a role, and those of them
// that must; these are struck off what is missing.
func (t *Table) candidates(w Criteria, k int, missing *[]string) (role, must []int) {
	role = slices.DeleteFunc(slices.Clone(t.roles[k]), func(i int) bool {
		p := t.paints[i]
		_, priced := w.Prices[p.ID]
		return len(w.Among) > 0 && !slices.Contains(w.Among, p.ID) || w.Careful && p.Hazardous() || w.Lasting && !p.Lasting() || slices.Contains(w.Without, p.CautionClass) || w.Prices != nil && !priced
	})
	for _, i := range role {
		if at := slices.Index(*missing, t.paints[i].ID); at >= 0 {
			must, *missing = append(must, i), slices.Delete(*missing, at, at+1)
		}
	}
	return t.oneOfAKind(role, must, w), must
}

// fillings are what may stand in each role.
func (t *Table) fillings(w Criteria) (out [3][]filling, err error) {
	if w.Kind != wheel.RYB && w.Kind != wheel.Split && w.Kind != wheel.Double {
		return out, fmt.Errorf("a system of the kind %q is not chosen: take triad, split or double", w.Kind)
	}
	missing := slices.Clone(w.Contains)
	for k := range t.roles {
		role, must := t.candidates(w, k, &missing)
		has := func(f filling) bool {
			for _, i := range must {
				if f.before != i && f.after != i {
					return false
				}
			}
			return true
		}
		for n, i := range role {
			if f := (filling{before: i, after: i}); (w.Kind == wheel.RYB || w.Fewest) && has(f) {
				out[k] = append(out[k], f)
			}
			if w.Kind == wheel.RYB {
				continue
			}
			for _, j := range role[:n] {
				before, _ := wheel.Facing(t.paints[j], t.paints[i])
				f := filling{j, i, t.way(i, j).clean}
				if before == t.paints[i] {
					f.before, f.after = i, j
				}
				if has(f) {
					out[k] = append(out[k], f)
				}
			}
		}
		if len(out[k]) == 0 {
			name := wheel.RYB.Roles()[k]
			if len(must) > 0 {
				return out, fmt.Errorf("so many %ss cannot be in one %s system: take some of what it must contain away", name, w.Kind)
			}
			return out, fmt.Errorf("there are too few paints for the role of the %s: a %s system needs %d", name, w.Kind, map[bool]int{true: 1, false: 2}[w.Kind == wheel.RYB])
		}
	}
	if len(missing) > 0 {
		return out, fmt.Errorf("the paint %s is not among those that can be chosen from, or plays no role", missing[0])
	}
	return out, nil
}

// oneOfAKind leaves one tube of those with the same K and S: which of them stands
// in a system makes no difference. What must be in it stays, then the cheapest
// stays where prices matter, then the first. Where a role has one kind alone and
// two tubes of it, a pair of them stays.
func (t *Table) oneOfAKind(role, must []int, w Criteria) (out []int) {
	at := map[int]int{} // place in out, by kind
	var second []int
	for _, i := range role {
		n, there := at[t.kind[i]]
		switch {
		case !there:
			at[t.kind[i]] = len(out)
			out = append(out, i)
		case slices.Contains(must, i) && slices.Contains(must, out[n]):
			out = append(out, i)
		case slices.Contains(must, i), !slices.Contains(must, out[n]) && w.Prices[t.paints[i].ID] < w.Prices[t.paints[out[n]].ID]:
			second, out[n] = append(second, out[n]), i
		default:
			second = append(second, i)
		}
	}
	if len(out) == 1 && len(second) > 0 {
		out = append(out, slices.MinFunc(second, func(a, b int) int { return cmp.Compare(w.Prices[t.paints[a].ID], w.Prices[t.paints[b].ID]) }))
	}
	slices.Sort(out)
	return out
}

// finder looks at one system after the other and keeps the best.
type finder struct {
	t      *Table
	double bool
	most   int
	least  int                // bins that must be clean
	prices map[string]float64 // nil when they do not matter
	best   []found
}

type found struct {
	fill        [3]filling
	clean       int
	mean, price float64
}

// section is what is reached cleanly between two roles.
func (f *finder) section(a, b filling) bins {
	s := f.t.way(a.after, b.before).clean
	if f.double {
		s = s.or(f.t.way(a.before, b.before).clean).or(f.t.way(a.before, b.after).clean).or(f.t.way(a.after, b.after).clean)
	}
	return s
}

func (f *finder) offer(fill [3]filling, all bins) {
	c := found{fill: fill, clean: all.count(), price: f.price(fill)}
	if c.clean < f.least {
		return
	}
	if len(f.best) == f.most {
		last := f.best[len(f.best)-1]
		if cmp.Or(cmp.Compare(last.price, c.price), cmp.Compare(c.clean, last.clean)) < 0 {
			return // whatever its mean
		}
	}
	c.mean = f.reach(fill).Mean()
	at, _ := slices.BinarySearchFunc(f.best, c, func(a, b found) int {
		if better := cmp.Or(cmp.Compare(a.price, b.price), cmp.Compare(b.clean, a.clean), cmp.Compare(b.mean, a.mean)); better != 0 {
			return better
		}
		return -1 // what was found first stays before its equals
	})
	if at < f.most {
		f.best = slices.Insert(f.best, at, c)
		f.best = f.best[:min(len(f.best), f.most)]
	}
}

// price is what a system's tubes cost together, 0 when that does not matter.
func (f *finder) price(fill [3]filling) (sum float64) {
	if f.prices == nil {
		return 0
	}
	for _, x := range fill {
		sum += f.prices[f.t.paints[x.before].ID]
		if x.after != x.before {
			sum += f.prices[f.t.paints[x.after].ID]
		}
	}
	return sum
}

// reach is all that a system's ways reach.
func (f *finder) reach(fill [3]filling) (out Reach) {
	with := func(i, j int) {
		if i != j {
			out = out.With(f.t.way(i, j).reach)
		}
	}
	for k, a := range fill {
		b := fill[(k+1)%3]
		with(a.before, a.after)
		with(a.after, b.before)
		if f.double {
			with(a.before, b.before)
			with(a.before, b.after)
			with(a.after, b.after)
		}
	}
	return out
}
