package paint

import (
	"math"
	"strconv"
	"strings"

	"gyrophane/core/colour"
	"gyrophane/core/input"
)

// Limits of what is stirred together.
const (
	MostStirred = 24 // paints
	leastPart   = 1e-6
	largestPart = 1e6
)

// ParseParts reads ingredients written as PAINT=PARTS ("PB29=1", "PB15:3=2.5").
// The error is an input.Error, or what find answers.
func ParseParts(texts []string, find Finder) ([]Part, error) {
	if len(texts) == 0 {
		return nil, input.Errorf("name at least one paint, as PAINT=PARTS: PB29=1 PW6=3")
	}
	if len(texts) > MostStirred {
		return nil, input.Errorf("%d paints are more than anyone stirs together: give at most %d", len(texts), MostStirred)
	}
	var parts []Part
	seen := map[string]bool{}
	for _, text := range texts {
		id, number, found := strings.Cut(text, "=")
		if !found {
			return nil, input.Errorf("%q: write a paint and its parts as PAINT=PARTS, like PB29=1", input.Clip(text))
		}
		p, err := find(id)
		if err != nil {
			return nil, err
		}
		if seen[p.ID] {
			return nil, input.Errorf("%s stands twice: add its parts together", p.ID)
		}
		seen[p.ID] = true
		v, err := strconv.ParseFloat(strings.TrimSpace(number), 64)
		if err != nil || math.IsNaN(v) || v < leastPart || v > largestPart {
			return nil, input.Errorf("%s: parts must be a number from %s to %s, not %q", p.ID, plain(leastPart), plain(largestPart), input.Clip(number))
		}
		parts = append(parts, Part{Paint: p, Parts: v})
	}
	return parts, nil
}

func plain(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// ParseSwatch is the reflectance of a swatch described as parts of library
// paints, a medium, and wet or dry ("PB29=1 PW6=9 acrylic dry"); medium and wet or
// dry may be left out. The swatch is brushed out until nothing shows through.
func ParseSwatch(text string) (colour.Spectrum, error) {
	var parts []string
	medium, wet := "acrylic", false
	for _, word := range strings.Fields(text) {
		switch {
		case strings.Contains(word, "="):
			parts = append(parts, word)
		case word == Judged(true) || word == Judged(false):
			wet = word == Judged(true)
		default:
			medium = word
		}
	}
	in, err := ParseMedium(medium)
	if err != nil {
		return colour.Spectrum{}, err
	}
	p, err := ParseParts(parts, Find)
	if err != nil {
		return colour.Spectrum{}, err
	}
	m, err := Mix(p...)
	if err != nil {
		return colour.Spectrum{}, err
	}
	return m.Swatch(in, wet), nil
}

// Pile is paints by parts, and what they make.
type Pile struct {
	Parts   []Part
	Mixture Mixture
}

// NewPile mixes paints. The error is an input.Error.
func NewPile(parts []Part) (Pile, error) {
	m, err := Mix(parts...)
	if err != nil {
		return Pile{}, input.Wrap(err)
	}
	return Pile{parts, m}, nil
}
