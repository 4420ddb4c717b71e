package colour

import (
	_ "embed"
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

// NeutralChroma is the OKLCh chroma below which a colour has no hue to trust.
const NeutralChroma = 0.03

// Words describe a colour: "dark greyed violet", "vivid orange", or, where
// there is too little chroma to trust the hue, "light grey, leaning blue". The
// scheme is in data/words.csv.
func (c OKLab) Words() string {
	lch := c.OKLCh()
	hue := HueWord(WheelHue(lch.H))
	if lch.C < NeutralChroma {
		grey := wordBelow("neutral", lch.L)
		if lch.C < 0.004 {
			return grey
		}
		return grey + ", leaning " + hue
	}
	return strings.Join(strings.Fields(wordBelow("lightness", lch.L)+" "+wordBelow("chroma", lch.C)+" "+hue), " ")
}
