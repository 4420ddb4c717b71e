package paint

import (
	"cmp"
	_ "embed"
	"math"
	"slices"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/internal/table"
)

// Medium is what the pigment is bound in, and with it how thick a slot lies,
// how its surface looks wet and dry, and what lightens it.
type Medium struct {
	ID, Name         string
	Thickness        float64 // of a slot as painted; +Inf when opaque
	Uneven           float64 // sigma of the lognormal thickness about that, 0 where a film lies even
	Ground           float64 // internal reflectance of the support, 0 to 1
	Wet, Dry         Surface
	Milk             float64 // scattering at 550 nm that is there while it is wet
	LightenWithWater bool
	DryFrom, DryTo   int     // minutes until dry, at room warmth
	MayTouch         bool    // a slot may be painted against a wet one
	Workable         int     // minutes it stays workable on the palette
	Spread           int     // millilitres per square metre and coat
	Smallest         float64 // millilitres of the smallest pile a brush can use
	Rewets           bool    // a pile that has dried on the palette is workable again
	Thinner          string  // what paint is thinned with to a wash or a glaze
}

// WithFilm is the medium as somebody lays it who lays it so many times as thick.
func (m Medium) WithFilm(times float64) Medium {
	m.Thickness *= times
	return m
}

//go:embed data/surfaces.csv
var surfacesCSV string

// The surfaces that are looked at whatever the medium: of wet paint, under which
// undertones are, and of dry paint on paper.
var (
	Gloss = surface("gloss")
	Matt  = surface("matt")
)

// surface is the surface of a name in the table.
func surface(name string) Surface {
	for _, row := range table.Rows(surfacesCSV) {
		if row[0] == name {
			return Surface{table.Number(row[1]), table.Number(row[2]), table.Number(row[3]), table.Number(row[4])}
		}
	}
	panic("no surface is called " + name) // the tables are embedded and tested
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
	return Medium{}, input.Errorf("unknown medium %q: choose %s", id, strings.Join(ids, ", "))
}

// Surface is how the medium's surface looks, wet or dry.
func (m Medium) Surface(wet bool) Surface {
	if wet {
		return m.Wet
	}
	return m.Dry
}

// milk is what is added to the scattering while a medium is wet: the binder of an
// emulsion is not clear yet. It falls with the square of the wavelength, as that of
// small drops does.
func (m Medium) milk(wet bool) (s colour.Spectrum) {
	if wet && m.Milk > 0 {
		for i := range s {
			s[i] = m.Milk * (550 / colour.NM(i)) * (550 / colour.NM(i))
		}
	}
	return s
}

// in is a mixture as it is in a medium, wet or dry.
func (m *Mixture) in(in Medium, wet bool) Mixture {
	out := *m
	for i, s := range in.milk(wet) {
		out.s[i] += s
	}
	return out
}

// AsPainted is what a slot shows in a medium, wet or dry.
func (m *Mixture) AsPainted(in Medium, wet bool) colour.Spectrum {
	return m.FilmIn(in, in.Thickness, wet)
}

// Slopes are what AsPainted shows dry, and how that changes in each band with K and with S there.
func (m *Mixture) Slopes(in Medium) (painted, byK, byS colour.Spectrum) {
	f := in.Surface(false)
	if math.IsInf(in.Thickness, 1) {
		return m.slopes(math.Inf(1), in.Ground, f)
	}
	for _, t := range strayed(in.Uneven) {
		r, k, s := m.slopes(t.times*in.Thickness, in.Ground, f)
		for i := range r {
			painted[i] += t.weight * r[i]
			byK[i] += t.weight * k[i]
			byS[i] += t.weight * s[i]
		}
	}
	return painted, byK, byS
}

// FilmIn is a film of thickness x (+Inf when opaque) on a medium's ground.
func (m *Mixture) FilmIn(in Medium, x float64, wet bool) colour.Spectrum {
	return m.FilmOver(in, x, colour.Flat(in.Ground), wet)
}

// FilmOver is a film of thickness x (+Inf when opaque) over a dry ground of an internal reflectance (0 to 1)
// in each band, as Under has that of layers.
func (m *Mixture) FilmOver(in Medium, x float64, ground colour.Spectrum, wet bool) colour.Spectrum {
	f := in.Surface(wet)
	if wet && in.Milk > 0 {
		state := m.in(in, wet)
		m = &state
	}
	if math.IsInf(x, 1) {
		return m.Opaque(f)
	}
	return uneven(in.Uneven, func(times float64) colour.Spectrum { return m.filmOver(times*x, &ground, f) })
}

// Under is the internal reflectance of a medium's ground with dry layers on it, the first lowest: the film
// formula layer by layer [Kubelka & Munk 1931], an uneven layer by the mean of what it sends up.
func (in Medium) Under(layers []Layer) colour.Spectrum {
	inside := colour.Flat(in.Ground)
	for i := range layers {
		l := &layers[i]
		inside = uneven(in.Uneven, func(times float64) colour.Spectrum { return l.over(&inside, times) })
	}
	return inside
}

// thickness is one, so many times the usual, and how much of a layer has it.
type thickness struct{ times, weight float64 }

// strayed is a thickness that is lognormal about the usual, as a wash is that pools and grains: by the five points
// of Gauss and Hermite. An even one (sigma 0) is once.
func strayed(sigma float64) []thickness {
	if sigma == 0 {
		return []thickness{{1, 1}}
	}
	out := []thickness{
		{-2.856970013872806, 0.011257411327720688}, {-1.355626179974266, 0.22207592200561266}, {0, 0.5333333333333333},
		{1.355626179974266, 0.22207592200561266}, {2.856970013872806, 0.011257411327720688},
	}
	for i := range out {
		out[i].times = math.Exp(sigma * out[i].times)
	}
	return out
}

// uneven is the mean of what a layer shows where its thickness strays.
func uneven(sigma float64, of func(times float64) colour.Spectrum) (out colour.Spectrum) {
	if sigma == 0 {
		return of(1)
	}
	for _, t := range strayed(sigma) {
		for i, r := range of(t.times) {
			out[i] += t.weight * r
		}
	}
	return out
}

// Rung is one step of a ladder.
type Rung struct {
	Share     float64         // of colour left beside white, 1 where water thins
	Water     float64         // parts to 1 of paint, 0 where white lets down
	Thick     string          // what it is as thick as; empty beyond tea, and where white lets down
	Thickness float64         // of the film; +Inf when opaque
	Spectrum  colour.Spectrum // reflectance, seen from outside
}

// straightFilm is the thickness X of paint brushed out without water.
const straightFilm = 2.0

// Dilution is a named strength of paint in water.
type Dilution struct {
	As    string  // "butter"
	Water float64 // parts to 1 of paint
}

// Dilutions are the strengths painters name, the thickest first, in parts of water
// that a judgement gives them.
var Dilutions = [...]Dilution{{"butter", 0}, {"cream", 1}, {"milk", 3}, {"tea", 7}}

// ThickAs is the dilution nearest to some parts of water, half a step past the
// thinnest at most.
func ThickAs(water float64) string {
	off := func(d Dilution) float64 { return math.Abs(math.Log2((1 + water) / (1 + d.Water))) }
	nearest := slices.MinFunc(Dilutions[:], func(a, b Dilution) int { return cmp.Compare(off(a), off(b)) })
	if off(nearest) > 0.5 {
		return ""
	}
	return nearest.As
}

// Ladder lets a mixture down in n even logarithmic rungs (2 and up): with
// titanium white from share 1 to 0.003 or, where the medium lightens with
// water, thinned from x = 2 to 1/32; w parts of water to 1 of paint leave x = 2/(1 + w).
func (m *Mixture) Ladder(in Medium, wet bool, n int) []Rung {
	rungs := make([]Rung, max(n, 2))
	for i := range rungs {
		f := float64(i) / float64(len(rungs)-1)
		if in.LightenWithWater {
			thinned := math.Pow(2, 6*f)
			x := straightFilm / thinned
			rungs[i] = Rung{Share: 1, Water: thinned - 1, Thick: ThickAs(thinned - 1), Thickness: x, Spectrum: m.FilmIn(in, x, wet)}
			continue
		}
		share := math.Pow(leastShare, f)
		let := m.LetDown(share)
		rungs[i] = Rung{Share: share, Water: 0, Thick: "", Thickness: in.Thickness, Spectrum: let.AsPainted(in, wet)}
	}
	return rungs
}

func mustMedia(text string) []Medium {
	number := table.Number
	var out []Medium
	for _, row := range table.Rows(text) {
		m := Medium{
			ID: row[0], Name: row[1], Thickness: number(row[2]), Uneven: number(row[3]), Ground: number(row[4]),
			Wet: surface(row[5]), Dry: surface(row[6]), Milk: number(row[7]), LightenWithWater: row[8] == "water",
			DryFrom: int(number(row[9])), DryTo: int(number(row[10])), MayTouch: row[11] == "yes",
			Workable: int(number(row[12])), Spread: int(number(row[13])), Smallest: number(row[14]), Rewets: row[15] == "yes", Thinner: row[16],
		}
		if m.Thickness == 0 {
			m.Thickness = math.Inf(1)
		}
		out = append(out, m)
	}
	return out
}

// WaterFor is how many parts of water to 1 of paint leave a film of a thickness; 0
// for what is thicker than paint without water.
func WaterFor(x float64) float64 { return max(0, straightFilm/x-1) }
