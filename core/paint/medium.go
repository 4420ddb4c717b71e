package paint

import (
	_ "embed"
	"fmt"
	"math"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/internal/table"
)

// Medium is what the pigment is bound in, and with it how thick a slot lies,
// how its surface looks wet and dry, and what lightens it.
type Medium struct {
	ID, Name         string
	Thickness        float64 // of a slot as painted; +Inf when opaque
	Ground           float64 // internal reflectance of the support, 0 to 1
	Wet, Dry         Surface
	LightenWithWater bool
	DryFrom, DryTo   int  // minutes until dry, at room warmth
	MayTouch         bool // a slot may be painted against a wet one
	Workable         int  // minutes it stays workable on the palette
	Spread           int  // millilitres per square metre and coat
}

//go:embed data/media.csv
var mediaCSV string

var media = mustMedia(mediaCSV)

// Media lists the media in the order of the table, the default one included.
func Media() []Medium { return media }

// UsualMedium is the id of the medium that is meant where none is named.
const UsualMedium = "acrylic"

// ParseMedium finds a medium by its id.
func ParseMedium(id string) (Medium, error) {
	ids := make([]string, len(media))
	for i, m := range media {
		if strings.EqualFold(m.ID, id) {
			return m, nil
		}
		ids[i] = m.ID
	}
	return Medium{}, fmt.Errorf("unknown medium %q: choose %s", id, strings.Join(ids, ", "))
}

// Surface is how the medium's surface looks, wet or dry.
func (m Medium) Surface(wet bool) Surface {
	if wet {
		return m.Wet
	}
	return m.Dry
}

// AsPainted is what a slot shows in a medium, wet or dry.
func (m *Mixture) AsPainted(in Medium, wet bool) colour.Spectrum {
	return m.FilmIn(in, in.Thickness, wet)
}

// FilmIn is a film of thickness x (+Inf when opaque) on a medium's ground.
func (m *Mixture) FilmIn(in Medium, x float64, wet bool) colour.Spectrum {
	f := in.Surface(wet)
	if math.IsInf(x, 1) {
		return m.Opaque(f)
	}
	return m.Film(x, in.Ground, f)
}

// Rung is one step of a ladder.
type Rung struct {
	Share     float64         // of colour left beside white, 1 where water thins
	Thickness float64         // of the film; +Inf when opaque
	Spectrum  colour.Spectrum // reflectance, seen from outside
}

// Ladder lets a mixture down in n even logarithmic rungs (2 and up): with
// titanium white from share 1 to 0.003 or, where the medium lightens with
// water, thinned from x = 2 to 1/32.
func (m *Mixture) Ladder(in Medium, wet bool, n int) []Rung {
	rungs := make([]Rung, max(n, 2))
	for i := range rungs {
		f := float64(i) / float64(len(rungs)-1)
		if in.LightenWithWater {
			x := 2 * math.Pow(2, -6*f)
			rungs[i] = Rung{1, x, m.FilmIn(in, x, wet)}
			continue
		}
		share := math.Pow(leastShare, f)
		let := m.LetDown(share)
		rungs[i] = Rung{share, in.Thickness, let.AsPainted(in, wet)}
	}
	return rungs
}

func mustMedia(text string) []Medium {
	surfaces := map[string]Surface{"gloss": Gloss, "satin": Satin, "matt": Matt}
	number := table.Number
	var out []Medium
	for _, row := range table.Rows(text) {
		m := Medium{
			ID: row[0], Name: row[1], Thickness: number(row[2]), Ground: number(row[3]),
			Wet: surfaces[row[4]], Dry: surfaces[row[5]], LightenWithWater: row[6] == "water",
			DryFrom: int(number(row[7])), DryTo: int(number(row[8])), MayTouch: row[9] == "yes",
			Workable: int(number(row[10])), Spread: int(number(row[11])),
		}
		if m.Thickness == 0 {
			m.Thickness = math.Inf(1)
		}
		out = append(out, m)
	}
	return out
}
