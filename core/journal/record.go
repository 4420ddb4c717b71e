package journal

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"gyrophane/core/paint"
)

// Judged is an expectation and what became of it.
type Judged struct {
	At           time.Time // when it was said
	Section      string    // "orange", "violet", "green" or "other"
	Said, Came   paint.Verdict
	HueRight     bool // within one slot
	VerdictRight bool
	Practice     bool // in a round, and not of a wheel
	Painted      bool // it was held against paint, and not only against what is computed
}

// Tally counts expectations.
type Tally struct {
	Expectations, HuesRight, VerdictsRight int
	Brighter, Duller                       int // verdicts that came out brighter, and duller, than expected
}

func (t *Tally) add(j Judged) {
	t.Expectations++
	if j.HueRight {
		t.HuesRight++
	}
	switch {
	case j.VerdictRight:
		t.VerdictsRight++
	case brightness(j.Came) > brightness(j.Said):
		t.Brighter++
	case brightness(j.Came) < brightness(j.Said):
		t.Duller++
	}
}

// brightness orders verdicts from muddy to clean; quiet and softened are alike.
func brightness(v paint.Verdict) int {
	switch v {
	case paint.Clean:
		return 2
	case paint.Quiet, paint.Softened:
		return 1
	}
	return 0
}

// Month is what became of the expectations that were said in one.
type Month struct {
	Year  int
	Month time.Month
	Tally
	Painted Tally // of those that were held against paint
}

// Eye is how a painter's expectations of one section came out.
type Eye struct {
	Section string
	Tally
	Says string
}

// Months are what became of expectations month by month, the last one first.
func Months(all []Judged) (out []Month) {
	for _, j := range all {
		year, month, _ := j.At.Date()
		k := slices.IndexFunc(out, func(m Month) bool { return m.Year == year && m.Month == month })
		if k < 0 {
			k, out = len(out), append(out, Month{Year: year, Month: month})
		}
		out[k].add(j)
		if j.Painted {
			out[k].Painted.add(j)
		}
	}
	slices.SortFunc(out, func(a, b Month) int {
		return cmp.Or(cmp.Compare(b.Year, a.Year), cmp.Compare(b.Month, a.Month))
	})
	return out
}

// fewestOfEye is how many expectations of a section something is said of.
const fewestOfEye = 4

// Eyes say section by section where a painter's eye is right and where it is not, the
// least right first.
func Eyes(all []Judged) (out []Eye) {
	for _, j := range all {
		k := slices.IndexFunc(out, func(e Eye) bool { return e.Section == j.Section })
		if k < 0 {
			k, out = len(out), append(out, Eye{Section: j.Section})
		}
		out[k].add(j)
	}
	for k := range out {
		out[k].Says = out[k].says()
	}
	right := func(e Eye) float64 { return float64(e.HuesRight+e.VerdictsRight) / float64(2*e.Expectations) }
	slices.SortFunc(out, func(a, b Eye) int { return cmp.Or(cmp.Compare(right(a), right(b)), cmp.Compare(a.Section, b.Section)) })
	return out
}

// says is where the eye is right in a section.
func (e *Eye) says() string {
	n := e.Expectations
	switch {
	case n < fewestOfEye:
		return "too few to tell"
	case 2*e.Duller > n:
		return fmt.Sprintf("they come out duller than you expect, %d times of %d", e.Duller, n)
	case 2*e.Brighter > n:
		return fmt.Sprintf("they come out brighter than you expect, %d times of %d", e.Brighter, n)
	case 2*e.HuesRight < n:
		return fmt.Sprintf("they come out another hue than you expect, %d times of %d", n-e.HuesRight, n)
	case 4*(e.HuesRight+e.VerdictsRight) >= 3*2*n:
		return "your eye is right"
	}
	return "now right, now wrong"
}
