package colour

import (
	"errors"
	"fmt"
	"math"
)

// Measured is a spectrum on whatever grid it came on.
type Measured struct {
	NM    []float64 // wavelengths in nanometres, rising
	Value []float64 // one a wavelength
}

// The widest and narrowest steps of a grid, and the least stretch it covers, in
// nanometres.
const (
	finestStep   = 5
	coarsestStep = 20
	coverFrom    = 400
	coverTo      = 700
)

// Resample brings a measured spectrum to the 36 bands, linearly between its
// wavelengths. Ends that were not measured are held flat; held says how many
// bands those are. The grid must rise in steps of 5 to 20 nm and cover at least
// 400 to 700 nm.
func (m Measured) Resample() (s Spectrum, held int, err error) {
	if len(m.NM) != len(m.Value) || len(m.NM) < 2 {
		return s, 0, errors.New("a spectrum needs a value for each of its wavelengths")
	}
	for i, nm := range m.NM {
		if math.IsNaN(nm) || math.IsNaN(m.Value[i]) || math.IsInf(nm, 0) || math.IsInf(m.Value[i], 0) {
			return s, 0, fmt.Errorf("the value at %v nm is not a number", nm)
		}
		if i == 0 {
			continue
		}
		if step := nm - m.NM[i-1]; step < finestStep-1e-9 || step > coarsestStep+1e-9 {
			return s, 0, fmt.Errorf("the wavelengths %v and %v nm are %.4g nm apart: steps of %d to %d nm can be read", m.NM[i-1], nm, step, finestStep, coarsestStep)
		}
	}
	first, last := m.NM[0], m.NM[len(m.NM)-1]
	if first > coverFrom || last < coverTo {
		return s, 0, fmt.Errorf("the spectrum covers %v to %v nm: at least %d to %d nm are needed", first, last, coverFrom, coverTo)
	}
	at := 1
	for i := range s {
		nm := NM(i)
		if nm < first || nm > last {
			held++
		}
		nm = min(max(nm, first), last)
		for at < len(m.NM)-1 && m.NM[at] < nm {
			at++
		}
		for at > 1 && m.NM[at-1] > nm {
			at--
		}
		f := (nm - m.NM[at-1]) / (m.NM[at] - m.NM[at-1])
		s[i] = m.Value[at-1] + f*(m.Value[at]-m.Value[at-1])
	}
	return s, held, nil
}

// Shifted is the spectrum moved along the wavelengths by nm (either way, up to
// 350): what stood at 500 stands at 500 + nm. Ends are held flat.
func (s *Spectrum) Shifted(nm float64) Spectrum {
	var out Spectrum
	for i := range out {
		at := min(max(float64(i)-nm/StepNM, 0), Bands-1)
		j := min(int(at), Bands-2)
		f := at - float64(j)
		out[i] = s[j] + f*(s[j+1]-s[j])
	}
	return out
}
