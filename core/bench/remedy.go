package bench

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// RemedyKind is a way on from a pile that is not what it was meant to be.
type RemedyKind string

// The ways.
const (
	MendIt   RemedyKind = "mend"  // the least is added to it
	KeepPart RemedyKind = "part"  // a part of it is kept and mended, the rest set by
	AsItIs   RemedyKind = "as is" // it is painted with as it is
	Anew     RemedyKind = "anew"
)

// RemedyKinds lists them.
var RemedyKinds = []RemedyKind{MendIt, KeepPart, AsItIs, Anew}

// Remedy is one way on from a pile that is not what it was meant to be.
type Remedy struct {
	Kind    RemedyKind
	Counted recipe.Counted // what is counted out; nothing for as it is
	Keep    float64        // share of the pile that is kept, 0 to 1
	SetBy   float64        // ml that are set by
	ML      float64        // of the pile then
	DE      float64        // CIEDE2000 of it to what is aimed at, brushed out
	Takes   float64        // ml out of the tubes
	Tells   []Tell         // one tap on it that does not paint; nothing for as it is
	GoesOn  bool           // as it is: a run goes on from it
}

const (
	// rightAnyway is the CIEDE2000 up to which a pile passes for what it was meant to be.
	rightAnyway = 1
	// mendsTo is how near a remedy brings a pile at the least, or as near as a new one would be
	// and by so much.
	mendsTo, worseThanNew = 1.5, 0.5
	// keepsPart is the share of a pile above which all of it is kept, and of what a new one takes
	// up to which it is worth to part it.
	keepsPart, worthParting = 0.8, 0.8
)

// remedies are the ways on from a region's pile, the one that is advised first; none where the pile
// passes for what it was meant to be, or nothing brings it nearer.
func (st *Sitting) remedies(before *Plan, well, i int) []Remedy {
	w, r, set := &st.Wells[well-1], &before.Sheet.Regions[i], before.Settings
	holds := w.reckoned()
	off := r.offBy(holds)
	if !w.Off || off <= rightAnyway || set.Scale.Measure == recipe.ByLooks {
		return nil
	}
	needed := set.paintOf(r)
	anew := before.alone(i)
	if c := before.Counted[i]; before.Fill != OwnPiles && r.Step > 0 && !c.Adds {
		anew, needed = c, c.ML
	}
	newOne := Remedy{Kind: Anew, Counted: anew, SetBy: recipe.Volume(holds), ML: anew.ML, DE: anew.DE, Takes: recipe.Volume(anew.FromTubes())}
	mended := func(kind RemedyKind, keep float64) (Remedy, bool) {
		held := scaled(holds, keep)
		c := recipe.Mend(held, r.Recipe, &r.Mixture, set.Scale, needed)
		out := Remedy{Kind: kind, Counted: c, Keep: keep, SetBy: (1 - keep) * recipe.Volume(holds), ML: c.ML, DE: c.DE, Takes: recipe.Volume(c.FromTubes())}
		return out, len(c.Counts) > 0 && c.DE <= max(mendsTo, anew.DE+worseThanNew) && c.DE < off-worseThanNew
	}
	var out []Remedy
	mend, mends := mended(MendIt, 1)
	if mends && mend.Takes <= newOne.Takes {
		out = append(out, mend)
	}
	if keep := partOf(needed / recipe.ComesTo(holds, r.Recipe)); keep < keepsPart {
		if part, ok := mended(KeepPart, keep); ok && part.Takes <= worthParting*newOne.Takes {
			out = append(out, part)
		}
	}
	out = append(out, newOne)
	if mends && mend.Takes > newOne.Takes {
		out = append(out, mend)
	}
	out = append(out, Remedy{Kind: AsItIs, Keep: 1, ML: recipe.Volume(holds), DE: off, GoesOn: before.Fill != OwnPiles && r.Step > 0})
	for n := range out {
		out[n].Tells = out[n].tells(r, well, recipe.Volume(holds))
	}
	return out
}

// eyeShares are the shares of a pile that an eye can keep, in words.
var eyeShares = []struct {
	share float64
	words string
}{{0.2, "a fifth"}, {0.25, "a quarter"}, {1. / 3, "a third"}, {0.4, "two fifths"}, {0.5, "half"}, {0.6, "three fifths"}, {2. / 3, "two thirds"}, {0.75, "three quarters"}}

// partOf is the least share that an eye can keep which is so much at the least; else all of it.
func partOf(share float64) float64 {
	for _, of := range eyeShares {
		if of.share >= share-0.02 {
			return of.share
		}
	}
	return 1
}

// Says is a remedy in a sentence.
func (of *Remedy) Says() string {
	switch of.Kind {
	case MendIt:
		return fmt.Sprintf("Add this to it: it grows to %.2f ml and is %.1f off then.", of.ML, of.DE)
	case KeepPart:
		words := ""
		for _, p := range eyeShares {
			if p.share == of.Keep {
				words = p.words
			}
		}
		return fmt.Sprintf("Keep %s of it, set the rest by, and add this to what is kept: it is %.1f off then.", words, of.DE)
	case Anew:
		return fmt.Sprintf("Set it by and mix another: %.2f ml are left over.", of.SetBy)
	}
	if of.GoesOn {
		return fmt.Sprintf("It is %.1f off; what comes after it in its run is worked out from it.", of.DE)
	}
	return fmt.Sprintf("It is %.1f off.", of.DE)
}

// tells is what is told of a remedy when it was mixed.
func (of *Remedy) tells(r *Region, well int, held float64) []Tell {
	e := Event{Kind: Mixed, Region: r.ID, Well: well, Used: usedOf(&of.Counted), ML: of.ML}
	switch of.Kind {
	case AsItIs:
		return nil
	case MendIt:
		e.Adds = true
	case KeepPart:
		e.From, e.FromML = well, of.Keep*held
	}
	return []Tell{{Event: e}}
}

// PileSays is what the pile that stands mixed for a region is beside what it was meant to be: "The
// pile is 8 PY65 : 1 PB29; aimed at is 18 PY65 : 1 PB29." It is empty where none stands, or nothing was
// told of it but what was counted out.
func (st *Sitting) PileSays(s *Sheet, i int) string {
	well := 1 + slices.IndexFunc(st.Wells, func(w Well) bool { return w.Region == i && len(w.Holds) > 0 })
	if well == 0 {
		return ""
	}
	r := &s.Regions[i]
	in := func(of []paint.Part) string {
		least := math.Inf(1)
		for _, p := range of {
			least = min(least, p.Parts)
		}
		var words []string
		for _, p := range recipe.Of(of).InOrder() {
			words = append(words, fmt.Sprintf("%.3g %s", p.Parts/least, p.Paint.Code()))
		}
		return strings.Join(words, " : ")
	}
	w := &st.Wells[well-1]
	switch {
	case w.Seems == nil && !w.Off:
		return ""
	case w.Seems != nil && r.offBy(w.Seems) <= rightAnyway && w.Unlike < unlikely:
		return "By its test swatch this pile is near enough: paint with it."
	case w.Seems != nil:
		return strings.TrimSpace(fmt.Sprintf("The pile looks as %s would; aimed at is %s. %s", in(w.Seems), in(r.Recipe.Plain()), w.looksSay()))
	}
	return fmt.Sprintf("The pile is %s; aimed at is %s.", in(w.Holds), in(r.Recipe.Plain()))
}
