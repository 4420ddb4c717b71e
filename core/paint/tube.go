package paint

import (
	"gyrophane/core/colour"
	"gyrophane/core/input"
	"gyrophane/core/text"
)

// TubeDetails are what a painter says of a tube.
type TubeDetails struct {
	Nickname string
	Grade    string   // "artist" or "student"; "artist" when empty
	TubeML   *float64 // millilitres in the tube; nil when not said
	Price    *float64 // of the tube, in the painter's own money; nil when not said
	Note     string
	NotSure  string // the words on the tube, where it is not sure which of the pigments behind them it has; empty where it is
	Archived bool
}

// ByLook stands in the place of the words on a tube that has none: it was told by its look.
const ByLook = "no name, told by its look"

// Limits of what is said of a tube, in characters, millilitres and money.
const (
	LongestNickname = 80
	LongestNote     = 1000
	largestTube     = 5000
	highestPrice    = 10000
)

// Check is the details without blanks around them, or an input.Error on what
// cannot be said of a tube.
func (d TubeDetails) Check() (TubeDetails, error) {
	if d.Grade == "" {
		d.Grade = string(Artist)
	}
	_, err := ParseGrade(d.Grade)
	if err != nil {
		return d, input.Sentence(err)
	}
	if d.Nickname, err = text.Line("the nickname", d.Nickname, LongestNickname); err != nil {
		return d, input.Wrap(err)
	}
	if d.NotSure, err = text.Line("the words on the tube", d.NotSure, LongestName); err != nil {
		return d, input.Wrap(err)
	}
	if d.Note, err = text.Lines("the note", d.Note, LongestNote); err != nil {
		return d, input.Wrap(err)
	}
	switch {
	case d.TubeML != nil && !(*d.TubeML > 0 && *d.TubeML <= largestTube):
		return d, input.Errorf("a tube of %v ml cannot be: it holds more than 0 and at most %d ml", *d.TubeML, largestTube)
	case d.Price != nil && !(*d.Price >= 0 && *d.Price <= highestPrice):
		return d, input.Errorf("a price of %v cannot be: it runs from 0 to %d", *d.Price, highestPrice)
	}
	return d, nil
}

// Tube is a tube of a box: what paint it is, and what is said of it.
type Tube struct {
	Definition
	TubeDetails
}

// Complete checks a tube and fills in what it leaves out: the library's own id,
// curves that must be worked out from its origin. With it comes its paint. The
// error is an input.Error.
func (t Tube) Complete() (Tube, *Paint, error) {
	var err error
	if t.TubeDetails, err = t.TubeDetails.Check(); err != nil {
		return t, nil, err
	}
	d := &t.Definition
	if d.Library != "" {
		p, err := Find(d.Library)
		if err != nil {
			return t, nil, err
		}
		*d = Definition{Library: p.ID}
	} else {
		if d.Name, err = text.Line("the name", d.Name, LongestNickname); err != nil {
			return t, nil, input.Wrap(err)
		}
		if d.Name == "" {
			return t, nil, input.Errorf("no paint is named: give a library paint (PB29) or a paint of its own with a name and its K and S")
		}
	}
	if len(d.K) == 0 && len(d.S) == 0 && d.Origin != nil {
		derived, err := d.Origin.Derive(d.Name)
		if err != nil {
			return t, nil, err
		}
		if len(d.Pigments) > 0 {
			derived.Pigments = d.Pigments
		}
		*d = derived.Definition
	}
	p, err := d.Graded("", Grade(t.Grade))
	return t, p, err
}

// TintShare is the share of paint, by volume, in the tint that a paint's spectra
// are given of: 1 part in 9 of titanium white.
const TintShare = 0.1

// SwatchSpectra are the reflectances, seen from outside and wet, of a paint's
// masstone and of its tint with TintShare of it.
func (p *Paint) SwatchSpectra() (mass, tint colour.Spectrum) {
	t := p.alone.LetDown(TintShare)
	return p.alone.Masstone(), t.Masstone()
}
