package path

import (
	"fmt"
	"math"
	"strconv"

	"gyrophane/core/colour"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// Advice is what to do about a pile.
type Advice string

// The advice: the pile is near enough; something is to be added, to all of it or to a
// part; it is thrown away.
const (
	LeaveIt   Advice = "leave it"
	Add       Advice = "add"
	KeepPart  Advice = "keep part"
	StartOver Advice = "start over"
)

// Advices lists them.
var Advices = []Advice{LeaveIt, Add, KeepPart, StartOver}

// Advise says what to do about a pile, and why in a sentence. Pile is the colour
// that it comes to, in words.
func (c Correction) Advise(pile string) (Advice, string) {
	switch {
	case len(c.Add) == 0 && c.Reached:
		return LeaveIt, "It is near enough as it is: nobody could tell the two apart."
	case !c.Reached:
		return StartOver, fmt.Sprintf("Whatever is added, up to %d times the pile, it comes no nearer than %s. Start over.", MostAdded, pile)
	case c.Better():
		left := ""
		if c.Waste > 0 {
			left = fmt.Sprintf(", %s parts more than are wanted", hundredths(c.Waste))
		}
		return Add, fmt.Sprintf("Add %s. The pile grows to %.1f times what it is%s.", c.Add.Words(), c.Grows, left)
	}
	if c.Keep > 0 {
		var add []string
		for _, i := range c.KeepAdd {
			add = append(add, fmt.Sprintf("%.1f of the %s", i.Parts, i.Paint.ShortName()))
		}
		return KeepPart, fmt.Sprintf("Keep %.1f parts of it and add %s: %.1f are set by. Mending all of it needs %s; started over, %s are thrown away.",
			c.Keep, text.Listed(add), c.StartOver-c.Keep, c.Add.Words(), hundredths(c.StartOver))
	}
	return StartOver, fmt.Sprintf("Mending needs %s: start over. The pile would grow to %.1f times what it is, with %s parts left over; started over, %s are thrown away.",
		c.Add.Words(), c.Grows, hundredths(c.Waste), hundredths(c.StartOver))
}

func hundredths(v float64) string {
	return strconv.FormatFloat(math.Round(v*100)/100, 'f', -1, 64)
}

// Sentence says what a reading that was found on a path looks like.
func (f Found) Sentence(r paint.Reading) string {
	if f.Fits {
		return fmt.Sprintf("It looks like %s.", f.Ratio.Parts.Words())
	}
	look := f.Mixture.AsPainted(r.Medium, r.Wet)
	return fmt.Sprintf("Nothing between these two looks like that: the nearest is %s, and what was read is %s beside it.",
		f.Ratio.Parts.Words(), r.Lab.OKLab().Beside(look.OKLab(colour.D65)))
}
