package bench

import (
	"cmp"
	"math"
	"math/bits"
	"slices"
)

// state is what is painted, and where the painter stands.
type state struct {
	done    regions
	t       float64
	washes  int
	piles   int // mixed so far
	brush   [2]int
	dry     []float64  // minute at which each painted region is dry
	since   [3]float64 // minute at which the run of each section was begun
	left    int        // what is left of each class, as one number
	work    float64    // minutes of painting and mixing that are left
	parent  *state
	job, by int // the last region and its brush
}

// move is a region painted next with one of the brushes.
type move struct {
	job, by    int
	start, end float64
	washes     int
	piles      int
	since      float64
	bound      cost
}

func (p *problem) begin() *state {
	s := &state{brush: [2]int{-1, -1}, dry: make([]float64, len(p.jobs)), job: -1}
	if f := p.from; f != nil {
		s.done, s.brush, s.washes, s.piles, s.since = f.done, f.brush, f.washes, f.piles, f.since
		copy(s.dry, f.dry)
	}
	for i := range p.jobs {
		if s.done.has(i) {
			continue
		}
		s.work += p.jobs[i].paint + p.jobs[i].mix
		if p.classes.known {
			s.left += p.classes.radix[p.classes.of[i]]
		}
	}
	return s
}

// open are how many runs have been begun and not ended, and piles that stand mixed: each
// holds a well.
func (p *problem) open(s *state) (n int) {
	var begun, ended [3]bool
	ended = [3]bool{true, true, true}
	for i := range p.jobs {
		k := p.jobs[i].section
		if k < 0 {
			continue
		}
		if s.done.has(i) {
			begun[k] = true
		} else {
			ended[k] = false
		}
	}
	for k := range begun {
		if begun[k] && !ended[k] {
			n++
		}
	}
	if p.from != nil {
		for w, set := range p.from.ready {
			n += bits.OnesCount64(set &^ s.done[w])
		}
	}
	return n
}

// ready is the minute from which a region may be painted: what it touches is dry, and it itself where
// something ran into it.
func (p *problem) ready(s *state, j int) (at float64) {
	at = s.dry[j] // 0 where it was not painted
	for _, k := range p.jobs[j].touches {
		if s.done.has(k) {
			at = max(at, s.dry[k])
		}
	}
	return at
}

// try is what becomes of a region painted next, and false where that cannot be.
func (p *problem) try(s *state, j, by, open int) (m move, ok bool) {
	of := &p.jobs[j]
	if s.done.has(j) || !s.done.covers(of.after) || of.well && open >= p.wells {
		return m, false
	}
	return p.timed(j, by, s.brush[by], s.t, p.ready(s, j), s.washes, s.piles, s.since)
}

// timed is a region painted next with a brush that holds what another left in it, from
// a minute on, not before it is ready; false where its pile would not last.
func (p *problem) timed(j, by, holds int, t, ready float64, washes, piles int, since [3]float64) (m move, ok bool) {
	of := &p.jobs[j]
	m = move{job: j, by: by, washes: washes, piles: piles}
	if w := p.washes[holds+1][j]; w > 0 {
		t += w
		if m.washes++; m.washes%p.water == 0 {
			t += waterTime
		}
	}
	if of.well {
		if m.piles++; m.piles > p.wells {
			t += rinseTime
		}
	}
	// Whoever must wait waits before mixing.
	m.start = max(t+of.mix, ready)
	if k := of.section; k >= 0 {
		m.since = since[k]
		if of.place == 1 && of.mix > 0 {
			m.since = m.start - of.mix
		}
		if p.workable > 0 && m.start > m.since+p.workable+1e-9 {
			return m, false
		}
	}
	m.end = m.start + of.paint
	return m, true
}

func (p *problem) after(s *state, m move) *state {
	n := &state{
		done: s.done.with(m.job), t: m.end, washes: m.washes, piles: m.piles, brush: s.brush,
		dry: slices.Clone(s.dry), since: s.since, left: s.left, work: s.work - p.jobs[m.job].paint - p.jobs[m.job].mix, parent: s, job: m.job, by: m.by,
	}
	n.brush[m.by] = m.job
	n.dry[m.job] = m.end + p.drying
	if k := p.jobs[m.job].section; k >= 0 {
		n.since[k] = m.since
	}
	if p.classes.known {
		n.left -= p.classes.radix[p.classes.of[m.job]]
	}
	return n
}

// bound is a cost that no completion of a state comes below: what is left to do, to
// wash and to wait for, what is wet, and that of two that touch one must dry first.
func (p *problem) bound(s *state) cost {
	wet := 0.0
	if p.drying > 0 {
		for j := range p.jobs {
			if !s.done.has(j) {
				wet = max(wet, p.ready(s, j)+p.jobs[j].paint)
			}
		}
		for _, e := range p.edges {
			if !s.done.has(e.a) && !s.done.has(e.b) {
				wet = max(wet, s.t+e.minutes)
				break
			}
		}
	}
	return p.lowest(s.t, s.work, wet, s.washes, s.piles, s.left, s.brush)
}

// lowest is the least cost from a minute on, with so much work left, nothing ending
// before what is wet lets it.
func (p *problem) lowest(t, work, wet float64, washed, piles, left int, brush [2]int) cost {
	work += t + rinseTime*float64(max(0, p.piles-p.wells)-max(0, piles-p.wells))
	// with is the cost with so many washes more, taking so many minutes besides.
	with := func(washes int, extra float64) cost {
		all := washed + washes
		return cost{max(wet, work+extra+waterTime*float64(all/p.water-washed/p.water)), all}
	}
	c := &p.classes
	if !c.known {
		washes := max(0, p.least-washed)
		return with(washes, lightWash*float64(washes))
	}
	holds, place := 0, 1
	for b := range p.brushes {
		if brush[b] >= 0 {
			holds += (c.of[brush[b]] + 1) * place
		}
		place *= c.wide
	}
	at := left*c.held + holds
	if c.depth == 1 {
		return with(int(c.count[at]), float64(c.extra[at]))
	}
	best, known := cost{}, false
	extras := c.extra[at*c.depth : (at+1)*c.depth]
	for washes, extra := range extras {
		if extra == math.MaxFloat32 || washes > 0 && extra == extras[washes-1] {
			continue // no quicker for one wash more
		}
		if d := with(washes, float64(extra)); !known || d.less(best) {
			best, known = d, true
		}
	}
	if !known { // more washes than are told apart
		return with(0, 0)
	}
	return best
}

// edge is two regions that touch, and the least minutes from when neither is painted
// to when both are.
type edge struct {
	a, b    int
	minutes float64
}

func (p *problem) prepare() {
	for i := range p.jobs {
		if p.jobs[i].well {
			p.piles++
		}
		for _, k := range p.jobs[i].touches {
			if k < i {
				p.edges = append(p.edges, edge{i, k, p.jobs[i].paint + p.drying + p.jobs[k].paint})
			}
		}
	}
	slices.SortFunc(p.edges, func(a, b edge) int { return cmp.Compare(a.minutes, b.minutes) })
	p.least = p.chains()
}

// beamWidth is how many states a beam goes on from.
const beamWidth = 160

// beam goes on from the most promising states of each length; nil where none of them
// can be completed.
func (p *problem) beam(width int) *state {
	front := []*state{p.begin()}
	for range p.left {
		type child struct {
			of *state
			move
		}
		var all []child
		for _, s := range front {
			open := p.open(s)
			for j := range p.jobs {
				for by := range p.brushes {
					if by == 1 && s.brush[0] == s.brush[1] {
						continue // both are clean
					}
					if m, ok := p.try(s, j, by, open); ok {
						m.bound = p.promise(s, m)
						all = append(all, child{s, m})
					}
				}
			}
		}
		slices.SortFunc(all, func(a, b child) int {
			return cmp.Or(cmp.Compare(a.bound.minutes+0.01*float64(a.bound.washes), b.bound.minutes+0.01*float64(b.bound.washes)), cmp.Compare(a.job, b.job), cmp.Compare(a.by, b.by))
		})
		type key struct {
			done  regions
			brush [2]int
		}
		seen := map[key]int{}
		front = front[:0:0]
		for _, c := range all {
			k := key{c.of.done.with(c.job), c.of.brush}
			k.brush[c.by] = c.job
			if seen[k] == 2 {
				continue // alike but for what is wet
			}
			seen[k]++
			front = append(front, p.after(c.of, c.move))
			if len(front) == width {
				break
			}
		}
		if len(front) == 0 {
			return nil
		}
	}
	return slices.MinFunc(front, func(a, b *state) int {
		x, y := cost{a.t, a.washes}, cost{b.t, b.washes}
		switch {
		case x.less(y):
			return -1
		case y.less(x):
			return 1
		}
		return cmp.Compare(a.t, b.t)
	})
}

// promise is a move's end with what is left to do, the washing after it and the waits
// it already makes.
func (p *problem) promise(s *state, m move) cost {
	n := state{done: s.done.with(m.job), t: m.end, washes: m.washes, piles: m.piles, brush: s.brush, left: s.left, work: s.work - p.jobs[m.job].paint - p.jobs[m.job].mix, dry: s.dry}
	n.brush[m.by] = m.job
	if p.classes.known {
		n.left -= p.classes.radix[p.classes.of[m.job]]
	}
	was := s.dry[m.job]
	s.dry[m.job] = m.end + p.drying
	out := p.bound(&n)
	s.dry[m.job] = was
	return out
}

// Sheets of so many regions are searched to the end, looking at so many states at the
// most.
const (
	searchedRegions = 18
	mostStates      = 500_000
)

// spot is a state of a small sheet, without what led to it.
type spot struct {
	done   uint32
	t      float64
	washes int
	piles  int
	left   int
	work   float64
	brush  [2]int8
	since  [3]float64
	ready  [searchedRegions]float64 // minute from which each region may be painted
}

// search is depth first with bounds, from the best that is known.
type search struct {
	*problem
	runs   bool
	near   [searchedRegions]uint32 // the regions each touches
	cost   cost
	order  []move // to where the search is
	best   []move // the best that was found, where it is better than what was known
	states int
	kept   int
	seen   map[[3]uint64][]seenSpot
	washed [searchedRegions]uint64 // what a brush that painted a region is washed for: two bits for each other
}

// seenSpot is a spot that was gone on from, by what matters to what is left.
type seenSpot struct {
	t      float32
	washes int32
	ready  [searchedRegions]float32
	since  [3]float32
}

// solve is the best order that was found, a cost that none comes below, and whether it
// was proved to be the best; nil where there is no order. Quick leaves out what takes
// longer than a few hundredths of a second.
func (p *problem) solve(quick bool, known ...*state) (best *state, low cost, proved bool) {
	root := p.begin()
	low = p.bound(root)
	least := cost{1e9, math.MaxInt}
	take := func(k *state) {
		if k != nil && (cost{k.t, k.washes}).less(least) {
			best, least = k, cost{k.t, k.washes}
		}
	}
	width := beamWidth
	if quick && len(p.jobs) > searchedRegions {
		width = beamWidth / 8
	}
	for _, k := range append(known, p.beam(width)) {
		take(k)
	}
	if !quick && len(p.jobs) > searchedRegions {
		take(p.beam(beamWidth / 8)) // that of a sketch: a wider one is not always better
	}
	if quick {
		return best, low, best != nil && !low.less(least)
	}
	if best != nil && low.less(least) && p.classes.fits(p) {
		// Not met by what is quick to know: the table knows more.
		p.classes.fill(p)
		root = p.begin()
		low = p.bound(root)
		take(p.beam(beamWidth))
	}
	switch {
	case best != nil && !low.less(least):
		return best, least, true
	case len(p.jobs) > searchedRegions:
		return best, low, false
	}
	s := &search{problem: p, seen: map[[3]uint64][]seenSpot{}, cost: least}
	first := spot{
		done: uint32(root.done[0]), washes: root.washes, piles: root.piles, left: root.left, work: root.work,
		brush: [2]int8{int8(root.brush[0]), int8(root.brush[1])}, since: root.since,
	}
	for i := range p.jobs {
		first.ready[i] = p.ready(root, i)
		s.runs = s.runs || p.jobs[i].section >= 0
		for _, k := range p.jobs[i].touches {
			s.near[i] |= 1 << k
		}
		for k := range p.jobs {
			s.washed[i] |= uint64(2*p.wash(i, k)) << (2 * k) // 0, half a minute or one
		}
	}
	done := s.walk(&first)
	if s.best != nil {
		at := root
		for _, m := range s.best {
			at = p.after(at, m)
		}
		best, least = at, s.cost
	}
	if done {
		return best, least, best != nil
	}
	return best, low, false
}

// walk looks at all that a spot can become; false when it gave up.
func (s *search) walk(at *spot) bool {
	if len(s.order) == s.left {
		if c := (cost{at.t, at.washes}); c.less(s.cost) {
			s.best, s.cost = slices.Clone(s.order), c
		}
		return true
	}
	if s.states++; s.states > mostStates {
		return false
	}
	if s.dominated(at) {
		return true
	}
	open := 0
	if s.runs || s.from != nil {
		open = s.open(&state{done: regions{uint64(at.done)}})
	}
	var moves [2 * searchedRegions]move
	n := 0
	for j := range s.jobs {
		for by := range s.brushes {
			if by == 1 && at.brush[0] == at.brush[1] {
				continue
			}
			m, ok := s.step(at, j, by, open)
			if !ok {
				continue
			}
			next := s.next(at, &m)
			if m.bound = s.boundAt(&next); m.bound.less(s.cost) {
				moves[n] = m
				n++
			}
		}
	}
	slices.SortFunc(moves[:n], func(a, b move) int {
		return cmp.Or(cmp.Compare(a.bound.whole(), b.bound.whole()), cmp.Compare(a.bound.washes, b.bound.washes), cmp.Compare(a.end, b.end))
	})
	for i := range n {
		if m := &moves[i]; m.bound.less(s.cost) {
			next := s.next(at, m)
			s.order = append(s.order, *m)
			done := s.walk(&next)
			s.order = s.order[:len(s.order)-1]
			if !done {
				return false
			}
		}
	}
	return true
}

// step is what becomes of a region painted next, and false where that cannot be.
func (s *search) step(at *spot, j, by, open int) (move, bool) {
	of := &s.jobs[j]
	if at.done&(1<<j) != 0 || uint64(at.done)&of.after[0] != of.after[0] || of.well && open >= s.wells {
		return move{}, false
	}
	return s.timed(j, by, int(at.brush[by]), at.t, at.ready[j], at.washes, at.piles, at.since)
}

func (s *search) next(at *spot, m *move) spot {
	of := &s.jobs[m.job]
	n := *at
	n.done |= 1 << m.job
	n.t, n.washes, n.piles = m.end, m.washes, m.piles
	n.work -= of.paint + of.mix
	n.brush[m.by] = int8(m.job)
	if of.section >= 0 {
		n.since[of.section] = m.since
	}
	for _, k := range of.touches {
		n.ready[k] = max(n.ready[k], m.end+s.drying)
	}
	if s.classes.known {
		n.left -= s.classes.radix[s.classes.of[m.job]]
	}
	return n
}

func (s *search) boundAt(at *spot) cost {
	wet := 0.0
	if s.drying > 0 {
		for j := range s.jobs {
			if at.done&(1<<j) == 0 {
				wet = max(wet, at.ready[j]+s.jobs[j].paint)
			}
		}
		for i := range s.edges {
			if e := &s.edges[i]; at.done&(1<<e.a|1<<e.b) == 0 {
				wet = max(wet, at.t+e.minutes)
				break
			}
		}
	}
	return s.lowest(at.t, at.work, wet, at.washes, at.piles, at.left, [2]int{int(at.brush[0]), int(at.brush[1])})
}

// mostKept is how many spots are remembered, and mostAlike of those that differ only in what is dry
// when.
const (
	mostKept  = 500_000
	mostAlike = 24
)

// dominated says that another way to the same place was no later, no wetter and no
// more washed.
func (s *search) dominated(at *spot) bool {
	// What a brush holds matters only by the washes before what is left.
	left := uint64(0)
	for j := range s.jobs {
		if at.done&(1<<j) == 0 {
			left |= 3 << (2 * j)
		}
	}
	var held [2]uint64
	for b := range s.brushes {
		if at.brush[b] >= 0 {
			held[b] = s.washed[at.brush[b]] & left
		}
	}
	key := [3]uint64{uint64(at.done), min(held[0], held[1]), max(held[0], held[1])}
	var here seenSpot
	here.t, here.washes = float32(at.t), int32(at.washes)
	for j := range s.jobs {
		if at.done&(1<<j) == 0 {
			here.ready[j] = float32(max(at.t, at.ready[j]))
		}
	}
	for k, since := range at.since {
		here.since[k] = float32(since)
	}
	list := s.seen[key]
	for i := range list {
		other := &list[i]
		water := waterTime * float32(int(here.washes)/s.water-int(other.washes)/s.water)
		if other.t+water <= here.t && other.washes <= here.washes && other.noLater(&here) {
			return true
		}
	}
	if s.kept < mostKept && len(list) < mostAlike {
		s.kept++
		s.seen[key] = append(list, here)
	}
	return false
}

func (a *seenSpot) noLater(b *seenSpot) bool {
	for i := range a.ready {
		if a.ready[i] > b.ready[i] {
			return false
		}
	}
	for k := range a.since {
		if a.since[k] < b.since[k] {
			return false
		}
	}
	return true
}

// follow is what becomes of the regions in a given order with one brush; nil where
// that order cannot be.
func (p *problem) follow(order []int) *state {
	s := p.begin()
	for _, j := range order {
		m, ok := p.try(s, j, 0, p.open(s))
		if !ok {
			return nil
		}
		s = p.after(s, m)
	}
	return s
}

// order are the moves that led to a state, the first first.
func (s *state) order() (out []*state) {
	for at := s; at.parent != nil; at = at.parent {
		out = append(out, at)
	}
	slices.Reverse(out)
	return out
}
