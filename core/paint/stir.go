package paint

import "math"

// Stir is a mixture taken for a paint of its own, to be mixed further: a
// secondary that is parted for its tertiaries, a paint raised with white. Its
// strength is 1, its cautions are the gravest of its paints; Of remembers what it
// was stirred from.
func Stir(id, name string, parts ...Part) (*Paint, error) {
	m, err := Mix(parts...)
	if err != nil {
		return nil, err
	}
	p := &Paint{ID: id, Name: name, Source: Stirred, Hiding: hidingOf(&m), StrengthClass: strengthOf(&m), Of: parts, strength: 1, alone: m}
	var of []*Paint
	for _, part := range parts {
		of = append(of, part.Paint)
	}
	p.takeAfter(of)
	return p, nil
}

// mostRaised is the largest share of white a paint is raised with.
const mostRaised = 0.999

// Raised is a paint with a white added until its brushed-out lightness L* is
// that asked for or as near as the white brings it, in whole parts of at most
// 40 in all, and whether it had to be raised at all.
func Raised(p, with *Paint, lightness float64) (*Paint, bool) {
	at := func(white float64) float64 {
		m := Between(&p.alone, &with.alone, white)
		return m.BrushedOut().Lab().L
	}
	if p.alone.neutral || at(0) >= lightness {
		return p, false
	}
	low, high := 0.0, mostRaised
	for range 40 {
		if mid := (low + high) / 2; at(mid) < lightness {
			low = mid
		} else {
			high = mid
		}
	}
	// The nearest whole parts, the smaller numbers where two are as near.
	best, miss := [2]float64{1, 39}, 1e9
	for total := 2; total <= 40; total++ {
		white := float64(min(max(int(high*float64(total)+0.5), 1), total-1))
		if d := math.Abs(at(white/float64(total)) - lightness); d < miss-0.5 {
			best, miss = [2]float64{float64(total) - white, white}, d
		}
	}
	raised, err := Stir(p.ID+"+white", p.Name+" raised with white", Part{p, best[0]}, Part{with, best[1]})
	if err != nil {
		return p, false // the parts are whole numbers above 0
	}
	raised.CI, raised.Word = p.CI, p.Word
	return raised, true
}

// White is the titanium white that everything is let down with.
func White() *Paint { return titanium }
