package reach

import (
	"cmp"

	"gyrophane/core/input"
	"gyrophane/core/paint"
	"gyrophane/core/text"
)

// MostWanted is how many colours are matched at once, and kept.
const MostWanted = 24

// Wanted is a colour that a picture needs, as it is written.
type Wanted struct {
	Name   string // may be empty
	Colour string // #rrggbb, or CIELAB as L,a,b, as painted and dry
}

// Check says what is wrong with a wanted colour, with an input.Error.
func (w Wanted) Check() error {
	if _, err := text.Line("the name of a wanted colour", w.Name, paint.LongestNickname); err != nil {
		return input.Sentence(err)
	}
	_, err := w.Reading(paint.Media()[0])
	return err
}

// Reading is the wanted colour as painted in a medium, dry. The error is an
// input.Error.
func (w Wanted) Reading(in paint.Medium) (paint.Reading, error) {
	name := cmp.Or(w.Name, "the wanted colour")
	raw, err := paint.ParseColour(w.Colour, in, false)
	if err != nil {
		return paint.Reading{}, input.Errorf("%s: %w", name, err)
	}
	return raw.Parse(name)
}

// Readings are the wanted colours as painted in a medium, dry. The error is an
// input.Error.
func Readings(wanted []Wanted, in paint.Medium) (out []paint.Reading, err error) {
	if len(wanted) > MostWanted {
		return nil, input.Errorf("%d colours are more than are matched at once: give at most %d", len(wanted), MostWanted)
	}
	for _, w := range wanted {
		r, err := w.Reading(in)
		if err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, nil
}

// Targets are the wanted colours to choose a system for. The error is an
// input.Error.
func Targets(wanted []Wanted, in paint.Medium) (out []Target, err error) {
	readings, err := Readings(wanted, in)
	for i, r := range readings {
		out = append(out, Target{cmp.Or(wanted[i].Name, wanted[i].Colour), r.Lab})
	}
	return out, err
}
