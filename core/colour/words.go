package colour

import (
	_ "embed"
	"fmt"
	"math"
	"strings"

	"gyrophane/core/internal/table"
)

//go:embed data/words.csv
var wordsCSV string

type limit struct {
	below float64
	word  string
}

var limits = func() map[string][]limit {
	out := map[string][]limit{}
	for _, row := range table.Rows(wordsCSV) {
		out[row[0]] = append(out[row[0]], limit{table.Number(row[1]), row[2]})
	}
	return out
}()

func wordBelow(kind string, v float64) string {
	for _, l := range limits[kind] {
		if v < l.below {
			return l.word
		}
	}
	return ""
}

// strongChroma is where the words for quiet colours end.
var strongChroma = func() (end float64) {
	for _, l := range limits["chroma"] {
		if l.word != "" && l.below < 1 {
			end = max(end, l.below)
		}
	}
	return end
}()

//go:embed data/names.csv
var namesCSV string

// region is where a painter's name for a colour holds.
type region struct {
	name                 string
	from, to             float64 // wheel hue, degrees; may pass through 0
	lowL, highL          float64
	lowC, highC          float64
	darkBelow, lightFrom float64
}

var regions = func() (out []region) {
	for _, r := range table.Rows(namesCSV) {
		n := func(i int) float64 { return table.Number(r[i]) }
		out = append(out, region{name: r[0], from: n(1), to: n(2), lowL: n(3), highL: n(4), lowC: n(5), highC: n(6), darkBelow: n(7), lightFrom: n(8)})
	}
	return out
}()

// Name is the name that painters have for a colour beside the twelve hues:
// "brown", "light olive", "navy"; empty where it has none. The regions are in
// data/names.csv.
func (c OKLab) Name() string {
	lch := c.OKLCh()
	w := WheelHue(lch.H)
	for _, r := range regions {
		if Turn(w-r.from) > Turn(r.to-r.from) || lch.L < r.lowL || lch.L >= r.highL || lch.C < r.lowC || lch.C >= r.highC {
			continue
		}
		switch {
		case lch.L < r.darkBelow:
			return "dark " + r.name
		case lch.L >= r.lightFrom:
			return "light " + r.name
		}
		return r.name
	}
	return ""
}

// NeutralChroma is the OKLCh chroma below which a colour has no hue to trust.
const NeutralChroma = 0.03

// DarkestJudged is the L* below which the eye cannot tell one hue from another.
const DarkestJudged = 15

// Words describe a colour: by its own name where painters have one ("dark
// brown"), by its hue ("dark greyed violet", "vivid orange") or, where there is
// too little chroma to trust the hue, "light grey, leaning blue". The scheme is
// in data/words.csv and data/names.csv.
func (c OKLab) Words() string {
	lch := c.OKLCh()
	hue := HueWord(WheelHue(lch.H))
	if name := c.Name(); name != "" {
		return name
	}
	if lch.C < NeutralChroma {
		grey := wordBelow("neutral", lch.L)
		if lch.C < 0.004 {
			return grey
		}
		return grey + ", leaning " + hue
	}
	light := "lightness"
	if lch.C >= strongChroma {
		light = "strong"
	}
	return strings.Join(strings.Fields(wordBelow(light, lch.L)+" "+wordBelow("chroma", lch.C)+" "+hue), " ")
}

// What is seen as a difference at all, as a little, and as much of one: in
// lightness and chroma (OKLCh), and from how many degrees on the painter's
// circle a turn of hue is spoken of.
const (
	leastLighter, littleLighter, muchLighter    = 0.01, 0.05, 0.15
	leastBrighter, littleBrighter, muchBrighter = 0.008, 0.03, 0.08
	leastTurned                                 = 3
)

// Tinge is the word for a small shift of a* and b*: "redder", "yellower", "greener" or "bluer", whichever
// it goes toward most.
func Tinge(a, b float64) string {
	switch {
	case a >= math.Abs(b):
		return "redder"
	case b >= math.Abs(a):
		return "yellower"
	case -a >= math.Abs(b):
		return "greener"
	}
	return "bluer"
}

// NoDifference is what is said of two colours that look the same.
const NoDifference = "no difference to be seen"

// Beside says in words how a colour differs from another it is laid beside:
// "a little darker, quieter, 12 degrees nearer to blue".
func (c OKLab) Beside(other OKLab) string {
	a, b := c.OKLCh(), other.OKLCh()
	var says []string
	compare := func(d, least, little, much float64, more, less string) {
		word := more
		if d < 0 {
			d, word = -d, less
		}
		switch {
		case d < least:
			return
		case d < little:
			word = "a little " + word
		case d >= much:
			word = "much " + word
		}
		says = append(says, word)
	}
	compare(a.L-b.L, leastLighter, littleLighter, muchLighter, "lighter", "darker")
	compare(a.C-b.C, leastBrighter, littleBrighter, muchBrighter, "brighter", "quieter")
	if a.C >= NeutralChroma && b.C >= NeutralChroma {
		from := WheelHue(b.H)
		if turn := TurnBetween(from, WheelHue(a.H)); math.Abs(turn) >= leastTurned {
			says = append(says, fmt.Sprintf("%.0f degrees nearer to %s", math.Abs(turn), HueWord(from+math.Copysign(60, turn))))
		}
	}
	if len(says) == 0 {
		return NoDifference
	}
	return strings.Join(says, ", ")
}
