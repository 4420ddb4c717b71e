package journal

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/text"
	"gyrophane/core/wheel"
)

// Step is a painted step of a wheel, in the order of its ring.
type Step struct {
	Label  string
	Home   int          // the halves of a slot share it
	Lab    colour.Lab   // as it was read dry, D65
	Paints []paint.Part // that it was mixed from
}

// Jump is a step between two painted colours that is longer than it should be.
type Jump struct {
	From, To string
	Distance float64 // OKLab
	// Mend stands half way, of the paints of both; nil where they are not two.
	Mend *path.Found
}

// fewestJumping is how many steps must be known for one to be told from the others.
const fewestJumping = 5

// Jumps are the jumps between neighbours of a ring as it was painted, by the same rule as
// on a computed wheel: steps that were not read are left out, with both of their
// neighbours' steps toward them. The recipes are mixed from paints as now has them.
func Jumps(ring []Step, read func(i int) bool, in paint.Medium, now func(*paint.Paint) *paint.Paint) (out []Jump) {
	var distances []float64
	var from []int
	for i := range ring {
		next := (i + 1) % len(ring)
		if read(i) && read(next) && ring[i].Home != ring[next].Home {
			from, distances = append(from, i), append(distances, ring[i].Lab.OKLab().Distance(ring[next].Lab.OKLab()))
		}
	}
	if len(distances) < fewestJumping {
		return nil
	}
	_, least := wheel.JumpsFrom(distances)
	for n, i := range from {
		if distances[n] <= least {
			continue
		}
		a, b := &ring[i], &ring[(i+1)%len(ring)]
		out = append(out, Jump{a.Label, b.Label, distances[n], halfWay(a, b, in, now)})
	}
	return out
}

// halfWay is the recipe that looks half way between two steps as they were painted.
func halfWay(a, b *Step, in paint.Medium, now func(*paint.Paint) *paint.Paint) *path.Found {
	var of []*paint.Paint
	for _, p := range append(slices.Clone(a.Paints), b.Paints...) {
		if is := now(p.Paint); !slices.Contains(of, is) {
			of = append(of, is)
		}
	}
	if len(of) != 2 {
		return nil
	}
	mid := colour.Lab{L: (a.Lab.L + b.Lab.L) / 2, A: (a.Lab.A + b.Lab.A) / 2, B: (a.Lab.B + b.Lab.B) / 2}
	aim, err := paint.LabReading(mid, paint.Photo, false, in)
	if err != nil {
		return nil
	}
	found := path.New(of[0], of[1]).Find(aim)
	if !found.Fits {
		return nil
	}
	return &found
}

// Unanswered is what a painter wanted to do otherwise, without the sentences of NextTime that the
// taking of strengths has answered, of tubes by their short names, and those that a wheel which was
// drawn anew has.
func Unanswered(says string, taken []string, redrawn bool) string {
	answered := func(pattern string) {
		says = regexp.MustCompile(pattern).ReplaceAllString(says, "")
	}
	for _, name := range taken {
		answered(`(Less|More) ` + regexp.QuoteMeta(name) + `: the tube is (about|only) [0-9.]+( times| %) as strong\.\s*`)
	}
	if redrawn {
		answered(`(Less|More) [^.:]+ in the [^.]+\.\s*`)
		answered(`Between [^.]+ and [^.]+ put a step of [^.]+\.\s*`)
	}
	return strings.TrimSpace(says)
}

// NextTime is what explained places and jumps say to do otherwise, a sentence each.
func NextTime(labels []string, all []Explained, jumps []Jump) (out []string) {
	say := func(format string, args ...any) {
		if s := text.UpperFirst(fmt.Sprintf(format, args...)); !slices.Contains(out, s) {
			out = append(out, s)
		}
	}
	for i, e := range all {
		if len(e.Causes) == 0 {
			continue
		}
		switch c := e.Causes[0]; {
		case c.Kind == Contamination:
			say("rinse before the %s, or wash thoroughly: %s got into it.", labels[i], c.Paint.ShortName())
		case c.Kind == OfTube && c.Amount > 1:
			say("less %s: the tube is about %.1f times as strong.", c.Paint.ShortName(), c.Amount)
		case c.Kind == OfTube:
			say("more %s: the tube is only %.0f %% as strong.", c.Paint.ShortName(), 100*c.Amount)
		case c.Kind == OfAmount && c.Amount > 1:
			say("less %s in the %s.", c.Paint.ShortName(), labels[i])
		case c.Kind == OfAmount:
			say("more %s in the %s.", c.Paint.ShortName(), labels[i])
		case c.Kind == TooThin:
			say("lay the %s thicker, or a second time.", labels[i])
		}
	}
	for _, j := range jumps {
		if j.Mend != nil {
			say("between %s and %s put a step of %s.", j.From, j.To, j.Mend.Parts)
		}
	}
	return out
}
