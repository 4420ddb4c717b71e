package bench

import (
	"math"
	"slices"
)

// classes are the jobs that are alike to a brush. What is left of each, and what the
// brushes hold, tells how much washing and waiting is still to come at the least: what
// is wet matters only to what is painted next.
type classes struct {
	of    []int // class of each job
	total []int // jobs of each class
	radix []int // place of each class in the number that says what is left
	size  int
	wide  int // what a brush may hold: a class each, or nothing yet
	held  int // what all brushes may hold
	depth int // how many numbers of washes are told apart
	// extra is the least time in minutes besides painting and mixing with at most so many
	// washes more, by what is left, what is held, and the washes. Where only one number of
	// washes is told apart, count is the least of them.
	extra []float32
	count []uint8
	known bool
}

// The sizes of the table: its numbers, the steps to work it out, and the most washes
// that are told apart.
const (
	largestTable = 8_000_000
	mostWork     = 120_000_000
	mostWashes   = 12
)

// classesOf finds the classes, and how large their table would be: each job by itself where that
// finds room, else those together that a brush is washed for most alike.
func (p *problem) classesOf() classes {
	var groups [][]int
	for i := range p.jobs {
		groups = append(groups, []int{i})
	}
	c := p.classed(groups)
	for !c.fits(p) && len(p.jobs) <= searchedRegions && len(groups) > 1 {
		a, b := p.mostAlike(groups)
		groups[a] = append(groups[a], groups[b]...)
		groups = slices.Delete(groups, b, b+1)
		c = p.classed(groups)
	}
	return c
}

// mostAlike are the two groups whose jobs differ least in what is washed before and after them.
func (p *problem) mostAlike(groups [][]int) (a, b int) {
	least := math.Inf(1)
	for x := range groups {
		for y := x + 1; y < len(groups); y++ {
			differ := 0.0
			for _, i := range groups[x] {
				for _, j := range groups[y] {
					for k := range p.jobs {
						if k != i && k != j {
							differ += math.Abs(p.wash(i, k)-p.wash(j, k)) + math.Abs(p.wash(k, i)-p.wash(k, j))
						}
					}
					differ += p.wash(i, j) + p.wash(j, i)
				}
			}
			if differ < least {
				a, b, least = x, y, differ
			}
		}
	}
	return a, b
}

func (p *problem) classed(groups [][]int) (c classes) {
	c.of = make([]int, len(p.jobs))
	for n, group := range groups {
		c.total = append(c.total, len(group))
		for _, i := range group {
			c.of[i] = n
		}
	}
	c.wide, c.size, c.held, c.depth = len(groups)+1, 1, 1, mostWashes
	for _, t := range c.total {
		c.radix = append(c.radix, c.size)
		if c.size *= t + 1; c.size > largestTable {
			return c
		}
	}
	for range p.brushes {
		c.held *= c.wide
	}
	if p.brushes > 1 {
		c.depth = 1
	}
	return c
}

// fits says that the table can be worked out.
func (c *classes) fits(p *problem) bool {
	return c.size <= largestTable && c.size*c.held*c.depth <= largestTable && c.size*c.held*c.depth*len(c.total)*p.brushes <= mostWork
}

// between are the least wash, and the least time besides mixing, from one class (0 for
// a clean brush, else one more) to another.
func (c *classes) between(p *problem) (wash, gap [][]float32) {
	n := len(c.total)
	wash, gap = make([][]float32, c.wide), make([][]float32, c.wide)
	for from := range wash {
		wash[from], gap[from] = make([]float32, n), make([]float32, n)
		for to := range n {
			if from > 0 {
				wash[from][to], gap[from][to] = math.MaxFloat32, math.MaxFloat32
			}
		}
	}
	for i, from := range c.of {
		for j, to := range c.of {
			if i == j {
				continue
			}
			w := float32(p.wash(i, j))
			g := w
			if p.brushes == 1 && slices.Contains(p.jobs[i].touches, j) {
				g = max(g, float32(p.drying-p.jobs[j].mix))
			}
			wash[from+1][to], gap[from+1][to] = min(wash[from+1][to], w), min(gap[from+1][to], g)
		}
	}
	return wash, gap
}

func (c *classes) fill(p *problem) {
	c.known = true
	n := len(c.total)
	wash, gap := c.between(p)
	c.extra = make([]float32, c.size*c.held*c.depth)
	if c.depth == 1 {
		c.count = make([]uint8, c.size*c.held)
	}
	left := make([]int, n)
	for at := 1; at < c.size; at++ {
		for k, rest := 0, at; k < n; k++ {
			left[k] = rest % (c.total[k] + 1)
			rest /= c.total[k] + 1
		}
		for holds := range c.held {
			here := (at*c.held + holds) * c.depth
			extra := c.extra[here : here+c.depth]
			for w := range extra {
				extra[w] = math.MaxFloat32
			}
			count := uint8(math.MaxUint8)
			for k, l := range left {
				if l == 0 {
					continue
				}
				then := (at - c.radix[k]) * c.held
				for b, place := 0, 1; b < p.brushes; b, place = b+1, place*c.wide {
					from := holds / place % c.wide
					next := then + holds + (k+1-from)*place
					washes := 0
					if wash[from][k] > 0 {
						washes = 1
					}
					if c.depth == 1 {
						extra[0] = min(extra[0], gap[from][k]+c.extra[next])
						count = min(count, c.count[next]+uint8(washes))
						continue
					}
					for w := washes; w < c.depth; w++ {
						extra[w] = min(extra[w], gap[from][k]+c.extra[next*c.depth+w-washes])
					}
				}
			}
			if c.depth == 1 {
				c.count[at*c.held+holds] = count
			}
		}
	}
}

// chains is the least number of washes of a whole sheet where the table is too large: each wash begins
// a new chain of regions of which every one is painted after the one before without, and it takes at
// least so many chains to hold them all as are left when as many as can be have another behind them
// [a matching of greatest size, Kuhn 1955; with chains that go round it is a bound].
func (p *problem) chains() int {
	n := len(p.jobs)
	matched := make([]int, n)
	for i := range matched {
		matched[i] = -1
	}
	var tried []bool
	var augment func(a int) bool
	augment = func(a int) bool {
		for b := range n {
			if a != b && p.wash(a, b) == 0 && !tried[b] {
				tried[b] = true
				if matched[b] < 0 || augment(matched[b]) {
					matched[b] = a
					return true
				}
			}
		}
		return false
	}
	pairs := 0
	for a := range n {
		tried = make([]bool, n)
		if augment(a) {
			pairs++
		}
	}
	return max(0, n-pairs-p.brushes)
}
