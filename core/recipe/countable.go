package recipe

import (
	"cmp"
	"math"
	"slices"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
)

// Blend is a mixture of up to four paints that is to be counted out.
type Blend struct {
	Paints []*paint.Paint
	Shares []float64 // by volume, above 0, summing to 1
	Colour colour.Lab
	// Look is the colour of a mixture of the paints by shares summing to 1; one may
	// be 0.
	Look func(shares []float64) colour.Lab
}

// What a recipe must bring in CIEDE2000 for a part more to be worth counting, and
// for something more to be mixed beforehand.
const (
	perPart   = 0.03
	perBefore = 0.4
)

// traceShare is the share below which a paint is let down where counting it out
// does not do.
const traceShare = 0.05

// Unseen is a CIEDE2000 that nobody sees: a recipe that comes so near is not made
// more complicated.
const Unseen = 0.8

// lookedAt is how many recipes that ought to come near are looked at.
const lookedAt = 10

// Countable is the recipe of whole parts, at most MostParts in each step, of least
// difference to the colour that is wanted (CIEDE2000), where each part and each
// step before must be worth it; that difference, and with what its parts and steps
// cost. Paints that come to nothing are left out. Where parts alone do not do,
// traces are let down in the paint of which there is most, each by itself, or mixed
// to a hue first which is let down as one.
func (b Blend) Countable() (r Recipe, off, cost float64) {
	c := newCounting(b)
	c.plain()
	best := c.nearest()
	if best.off > Unseen {
		c.tracesLetDown()
		c.hueLetDown()
		best = c.nearest()
	}
	return best.recipe, best.off, best.off + best.parts
}

// candidate is a recipe that may do.
type candidate struct {
	recipe Recipe
	shares [4]float64
	cost   float64 // the difference to be expected, and what counting costs
	off    float64 // the difference, once it was looked at
	parts  float64 // what counting costs
}

// counting finds recipes near shares. How far each is expected to miss is worked
// out from the slopes of the colour over the logarithms of the shares, for there
// are thousands and a look takes long.
type counting struct {
	Blend
	main   int // the paint of which there is most
	base   colour.Lab
	slopes [4]colour.Lab // of the colour over ln(share)
	found  []candidate   // the best so far, at most lookedAt
}

func newCounting(b Blend) *counting {
	c := &counting{Blend: b, base: b.Look(b.Shares)}
	const nudge = 0.02
	next := make([]float64, len(b.Shares))
	for i, share := range b.Shares {
		if share > b.Shares[c.main] {
			c.main = i
		}
		copy(next, b.Shares)
		next[i] *= math.Exp(nudge)
		for n := range next {
			next[n] /= 1 + share*(math.Exp(nudge)-1)
		}
		lab := b.Look(next)
		c.slopes[i] = colour.Lab{L: (lab.L - c.base.L) / nudge, A: (lab.A - c.base.A) / nudge, B: (lab.B - c.base.B) / nudge}
	}
	return c
}

// expected is about how far a mixture will miss, in CIELAB. A paint that is left
// out is taken for a hundredth of what there should be.
func (c *counting) expected(shares *[4]float64) float64 {
	lab := c.base
	for i, share := range c.Shares {
		by := math.Log(max(shares[i]/share, 0.01))
		lab.L += by * c.slopes[i].L
		lab.A += by * c.slopes[i].A
		lab.B += by * c.slopes[i].B
	}
	return math.Sqrt(sq(lab.L-c.Colour.L) + sq(lab.A-c.Colour.A) + sq(lab.B-c.Colour.B))
}

func sq(x float64) float64 { return x * x }

// try takes a recipe among those to be looked at when it promises enough. The
// recipe itself is made only then.
func (c *counting) try(shares [4]float64, counted, before int, make func() Recipe) {
	parts := perPart*float64(counted) + perBefore*float64(before)
	cost := c.expected(&shares) + parts
	at, _ := slices.BinarySearchFunc(c.found, cost, func(f candidate, cost float64) int { return cmp.Compare(f.cost, cost) })
	if at >= lookedAt {
		return
	}
	if len(c.found) == lookedAt {
		c.found = c.found[:lookedAt-1]
	}
	c.found = slices.Insert(c.found, at, candidate{recipe: make(), shares: shares, cost: cost, off: -1, parts: parts})
}

// nearest looks at what promises most, and takes the best.
func (c *counting) nearest() candidate {
	for i := range c.found {
		if f := &c.found[i]; f.off < 0 {
			f.off = colour.Difference(c.Colour, c.Look(f.shares[:len(c.Shares)]))
		}
	}
	return slices.MinFunc(c.found, func(a, b candidate) int { return cmp.Compare(a.off+a.parts, b.off+b.parts) })
}

// plain tries parts of the paints as they come.
func (c *counting) plain() {
	for total := 1; total <= MostParts; total++ {
		var n [4]int
		sum, divisor := 0, 0
		for i, share := range c.Shares {
			n[i] = int(math.Round(share * float64(total)))
			sum += n[i]
			divisor = gcd(divisor, n[i])
		}
		if divisor != 1 || sum > MostParts {
			continue // nothing, or found with a smaller total
		}
		var shares [4]float64
		for i := range c.Shares {
			shares[i] = float64(n[i]) / float64(sum)
		}
		c.try(shares, sum, 0, func() Recipe { return c.recipe(n, [4]int{}) })
	}
}

// recipe is so many parts of each paint, some let down in the main one.
func (c *counting) recipe(parts, thin [4]int) (r Recipe) {
	for i, p := range c.Paints {
		if parts[i] == 0 {
			continue
		}
		one := Ingredient{Paint: p, Parts: float64(parts[i])}
		if thin[i] > 0 {
			one.In, one.Thin = c.Paints[c.main], thin[i]
		}
		r = append(r, one)
	}
	return r
}

// tracesLetDown tries every trace let down in the main paint, each by itself.
func (c *counting) tracesLetDown() {
	var traces []int
	for i, share := range c.Shares {
		if share < traceShare && i != c.main {
			traces = append(traces, i)
		}
	}
	if len(traces) == 0 {
		return
	}
	ways := 1
	for range traces {
		ways *= len(Thinnings)
	}
	for way := range ways {
		var thin [4]int
		for _, i := range traces {
			thin[i] = Thinnings[way%len(Thinnings)]
			way /= len(Thinnings)
		}
		for total := len(c.Shares); total <= MostParts; total++ {
			c.tryThinned(thin, total, len(traces))
		}
	}
}

func (c *counting) tryThinned(thin [4]int, total, before int) {
	var n [4]int
	var shares [4]float64
	rest, divisor := total, 0
	for i, share := range c.Shares {
		if i == c.main {
			continue
		}
		whole := float64(total * (thin[i] + 1))
		n[i] = int(math.Round(share * whole))
		if n[i] == 0 {
			return
		}
		rest -= n[i]
		shares[i] = float64(n[i]) / whole
		shares[c.main] += float64(n[i]*thin[i]) / whole
		divisor = gcd(divisor, n[i])
	}
	if rest < 1 || gcd(divisor, rest) > 1 {
		return
	}
	n[c.main] = rest
	shares[c.main] += float64(rest) / float64(total)
	c.try(shares, total, before, func() Recipe { return c.recipe(n, thin) })
}

// hueLetDown tries all but the main paint mixed to a hue first.
func (c *counting) hueLetDown() {
	hue := 1 - c.Shares[c.main]
	if len(c.Shares) < 3 || hue >= 0.5 {
		return
	}
	for first := len(c.Shares) - 1; first <= MostParts; first++ {
		var n [4]int
		sum, divisor := 0, 0
		for i, share := range c.Shares {
			if i != c.main {
				n[i] = int(math.Round(share / hue * float64(first)))
				sum += n[i]
				divisor = gcd(divisor, n[i])
			}
		}
		if divisor != 1 || sum > MostParts || slices.ContainsFunc(c.others(n), func(n int) bool { return n == 0 }) {
			continue
		}
		for _, thin := range append([]int{0}, Thinnings[:]...) {
			for total := 2; total <= MostParts; total++ {
				whole := float64(total * (thin + 1))
				of := int(math.Round(hue * whole))
				if of < 1 || of >= total || gcd(of, total) > 1 {
					continue
				}
				var shares [4]float64
				for i := range c.Shares {
					shares[i] = float64(of) / whole * float64(n[i]) / float64(sum)
				}
				shares[c.main] = 1 - float64(of)/whole
				c.try(shares, total+sum, 1+min(thin, 1), func() Recipe { return c.hueRecipe(n, of, total-of, thin) })
			}
		}
	}
}

// others are the parts of all but the main paint.
func (c *counting) others(n [4]int) (out []int) {
	for i := range c.Shares {
		if i != c.main {
			out = append(out, n[i])
		}
	}
	return out
}

// HueID is the id of a hue that is mixed first.
const HueID = "hue"

// hueRecipe is so many parts of a hue, perhaps let down, in the main paint.
func (c *counting) hueRecipe(n [4]int, of, rest, thin int) Recipe {
	hue, err := c.recipe(n, [4]int{}).InOrder().Stir(HueID, "hue")
	if err != nil {
		panic(err) // the parts are whole numbers above 0
	}
	main := c.Paints[c.main]
	one := Ingredient{Paint: hue, Parts: float64(of)}
	if thin > 0 {
		one.In, one.Thin = main, thin
	}
	return Recipe{{Paint: main, Parts: float64(rest)}, one}
}
