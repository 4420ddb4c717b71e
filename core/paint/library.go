package paint

import (
	_ "embed"
	"encoding/binary"
	"encoding/json"
	"fmt"
	"hash/fnv"
	"math"
	"slices"
	"strings"
	"sync"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

// Paint is one paint of a box: what it is called and what it does to light.
type Paint struct {
	ID   string // unique, "PB29"
	CI   string // Colour Index name of the pigment, or names
	Name string
	// Family is the family the library gives it: one of "yellow", "orange",
	// "red", "magenta", "violet", "blue", "cyan", "green", "earth", "black",
	// "white".
	Family        string
	Hiding        string // "opaque", "semi" or "transparent"
	StrengthClass int    // tinting strength, 1 (weak) to 5 (very strong)
	Staining      string // typical of the class: "low", "medium", "high"; empty when unknown
	Lightfast     string // typical of the class: "excellent", "good", "fair", "poor"; empty when unknown
	CautionClass  string
	Caution       string
	Making        Making
	Of            []Part // of a stirred mixture: what it was stirred from
	Library       string // id of the library paint that it is; empty for curves of its own
	Version       string // of the library that has it so; empty for curves of its own

	strength  float64
	alone     Mixture
	once      sync.Once
	undertone Undertone
}

// Alone is the paint as a mixture of nothing else, its strength included.
func (p *Paint) Alone() Mixture { return p.alone }

// Undertone is the undertone of the paint alone, worked out once.
func (p *Paint) Undertone() Undertone {
	p.once.Do(func() { p.undertone = p.alone.Undertone() })
	return p.undertone
}

// Fingerprint tells a paint from any other by K and S at its strength, whatever
// it is called (FNV-1a).
func (p *Paint) Fingerprint() uint64 {
	h := fnv.New64a()
	_ = binary.Write(h, binary.LittleEndian, [2]colour.Spectrum{p.alone.k, p.alone.s}) // a hash never fails
	return h.Sum64()
}

// Strength is the factor g on K and S: 1 for an ordinary artist's tube. White
// always has 1.
func (p *Paint) Strength() float64 { return p.strength }

// LibraryVersion names the paints and the envelope made from them; what is
// kept with a wheel says which library it was worked out with.
func LibraryVersion() string { return curves().version }

// Library is the built-in library: modelled paints, typical of each pigment
// class at ordinary artist strength, in the order of the table. The slice and
// the paints must not be changed.
func Library() []*Paint { return loaded().paints }

// Find returns a library paint by its id, in upper or lower case, or by its
// Colour Index name where that names a single paint. The error is an input.Error.
func Find(id string) (*Paint, error) {
	l := loaded()
	key := strings.ToLower(strings.TrimSpace(id))
	if p := l.byID[key]; p != nil {
		return p, nil
	}
	var near []string
	for _, p := range l.paints {
		if strings.ToLower(p.CI) == key {
			near = append(near, p.ID)
		}
	}
	if len(near) > 0 {
		return nil, input.Errorf("%q names several paints: choose %s", id, strings.Join(near, ", "))
	}
	return nil, input.Errorf("unknown paint %q: the library has no such name; its paints go by their Colour Index names, like PB29", input.Clip(id))
}

// FindOf is Find with the paint as a version of the library had it; a version that
// had it as it is today, an empty one or an unknown one, is today's.
func FindOf(id, version string) (*Paint, error) {
	p, err := Find(id)
	if err != nil {
		return nil, err
	}
	return loaded().of(p, version), nil
}

// of is a paint as a version of the library had it.
func (l *library) of(p *Paint, version string) *Paint {
	for _, b := range l.before[p.ID] {
		if slices.Contains(b.versions, version) {
			return b.paint
		}
	}
	return p
}

type library struct {
	version string
	paints  []*Paint
	byID    map[string]*Paint
	before  map[string][]earlier // by the id of a paint
}

// earlier is a paint as some versions of the library had it.
type earlier struct {
	versions []string
	paint    *Paint
}

// Params are the readable parameters of a pigment's spectra, per unit
// thickness: absorption as a floor and a sum of features, scattering as a power
// law with, for some, a rise.
type Params struct {
	KFloor    float64   `json:"k_floor"`
	KFeatures []Feature `json:"k_features"`
	S550      float64   `json:"s550"`
	SPower    float64   `json:"s_power"`
	SRise     *Rise     `json:"s_rise"`
}

// Feature is a stretch of absorption: a "band" around NM with half widths at
// half height Short and Long (nm), or an "edge" below NM with a Slope (nm).
type Feature struct {
	Kind   string  `json:"kind"`
	NM     float64 `json:"nm"`
	Height float64 `json:"height"`
	Short  float64 `json:"short"`
	Long   float64 `json:"long"`
	Slope  float64 `json:"slope"`
}

// Rise is extra scattering above NM (nm), coming in over Slope (nm).
type Rise struct {
	NM     float64 `json:"nm"`
	Slope  float64 `json:"slope"`
	Height float64 `json:"height"`
}

// Spectra turns the parameters into K and S at the 36 bands:
//
//	band: height exp(-ln2 ((nm-centre)/w)^2), w = short below, long above
//	edge: height / (1 + exp((nm-centre)/slope))
//	S:    s550 (nm/550)^-power + height / (1 + exp(-(nm-centre)/slope))
func (p Params) Spectra() (k, s colour.Spectrum) {
	for i := range k {
		nm := colour.NM(i)
		k[i] = p.KFloor
		for _, f := range p.KFeatures {
			d := nm - f.NM
			if f.Kind == "edge" {
				k[i] += f.Height / (1 + math.Exp(d/f.Slope))
				continue
			}
			w := f.Long
			if d < 0 {
				w = f.Short
			}
			k[i] += f.Height * math.Exp(-math.Ln2*(d/w)*(d/w))
		}
		s[i] = p.S550 * math.Pow(nm/550, -p.SPower)
		if r := p.SRise; r != nil {
			s[i] += r.Height / (1 + math.Exp(-(nm-r.NM)/r.Slope))
		}
	}
	return k, s
}

//go:embed data/library.json
var libraryJSON []byte

// curves is the library before its paints know how bright they are themselves,
// which the envelope made from it tells.
var curves = sync.OnceValue(func() *library {
	l, err := readLibrary(libraryJSON)
	if err != nil {
		panic(err) // the table is embedded and tested
	}
	return l
})

var loaded = sync.OnceValue(func() *library {
	l := curves()
	for _, p := range l.paints {
		if p.Family != "white" {
			p.alone.ofOneTube()
		}
		for _, b := range l.before[p.ID] {
			b.paint.alone.ofOneTube()
		}
	}
	return l
})

// titanium is the white everything is let down with.
var titanium = curves().byID["pw6"]

func readLibrary(data []byte) (*library, error) {
	var table struct {
		Version string
		Paints  []struct {
			ID, CI, Name, Family, Hiding string
			Staining, Lightfast          string
			Params                       *Params
			Before                       []struct {
				Versions []string
				Params   Params
			}
			Mixture []struct {
				Paint string
				Parts float64
			}
			CautionClass string `json:"caution_class"`
			Caution      string
		}
	}
	if err := json.Unmarshal(data, &table); err != nil {
		return nil, fmt.Errorf("the paint library cannot be read: %w", err)
	}
	l := &library{version: table.Version, byID: map[string]*Paint{}, before: map[string][]earlier{}}
	for _, row := range table.Paints {
		p := &Paint{ID: row.ID, Library: row.ID, Version: table.Version, CI: row.CI, Name: row.Name, Family: row.Family, Hiding: row.Hiding,
			Staining: row.Staining, Lightfast: row.Lightfast, CautionClass: row.CautionClass, Caution: row.Caution, Making: Modelled, strength: 1}
		if row.Params != nil {
			p.alone.k, p.alone.s = row.Params.Spectra()
			p.alone.neutral = p.Family == "white" || p.Family == "black"
		} else {
			var parts []Part
			var versions []string // of which its paints were others
			for _, m := range row.Mixture {
				of := l.byID[strings.ToLower(m.Paint)]
				if of == nil {
					return nil, fmt.Errorf("%s is mixed from %s, which does not stand above it in the library", row.ID, m.Paint)
				}
				parts = append(parts, Part{of, m.Parts})
				for _, b := range l.before[of.ID] {
					versions = append(versions, b.versions...)
				}
			}
			var err error
			if p.alone, err = Mix(parts...); err != nil {
				return nil, err
			}
			slices.Sort(versions)
			for _, version := range slices.Compact(versions) {
				then := slices.Clone(parts)
				for n := range then {
					then[n].Paint = l.of(then[n].Paint, version)
				}
				was := p.copied()
				was.Version = version
				if was.alone, err = Mix(then...); err != nil {
					return nil, err
				}
				l.before[p.ID] = append(l.before[p.ID], earlier{[]string{version}, was})
			}
		}
		if err := p.alone.sound(); err != nil {
			return nil, fmt.Errorf("%s: %w", p.ID, err)
		}
		p.StrengthClass = 1
		if p.Family == "white" {
			p.alone.allWhite()
		} else {
			p.StrengthClass = strengthOf(&p.alone)
		}
		for _, b := range row.Before {
			if len(b.Versions) == 0 {
				return nil, fmt.Errorf("%s: curves of before name the versions that had them", p.ID)
			}
			was := p.copied()
			was.Version = b.Versions[len(b.Versions)-1]
			was.alone.k, was.alone.s = b.Params.Spectra()
			was.StrengthClass = strengthOf(&was.alone)
			if err := was.alone.sound(); err != nil {
				return nil, fmt.Errorf("%s of the library %s: %w", p.ID, b.Versions, err)
			}
			l.before[p.ID] = append(l.before[p.ID], earlier{b.Versions, was})
		}
		l.paints = append(l.paints, p)
		l.byID[strings.ToLower(p.ID)] = p
	}
	return l, nil
}

// What K and S of a paint may be, at its strength: some thirty times beyond what
// the strongest and the clearest pigments of the library come to. Farther out
// colours are computed from the last digits of a number.
const (
	MostAbsorption  = 1000
	LeastScattering = 0.0001
	MostScattering  = 100
)

// sound refuses what no paint can be.
func (m *Mixture) sound() error {
	for i := range m.k {
		if k := m.k[i]; !(k >= 0 && k <= MostAbsorption) {
			return fmt.Errorf("the absorption at %v nm is %.4g, and a paint has from 0 to %d", colour.NM(i), k, MostAbsorption)
		}
		if s := m.s[i]; !(s >= LeastScattering && s <= MostScattering) {
			return fmt.Errorf("the scattering at %v nm is %.4g, and a paint has from %v to %d", colour.NM(i), s, LeastScattering, MostScattering)
		}
	}
	return nil
}
