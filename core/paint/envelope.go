package paint

import (
	_ "embed"
	"encoding/csv"
	"fmt"
	"math"
	"runtime"
	"strconv"
	"strings"
	"sync"

	"golang.org/x/sync/errgroup"

	"gyrophane/core/colour"
)

const (
	envelopeBins = 72
	binWidth     = 360.0 / envelopeBins
	// pairSamples is how many mixtures of each pair of library paints are looked at.
	pairSamples = 33
)

// Envelope is the most undertone chroma (OKLCh) that the built-in library
// reaches at a wheel hue in degrees, over single paints and all mixtures of
// two.
func Envelope(wheelHue float64) float64 { return envelope().at(wheelHue) }

type hueBins [envelopeBins]float64

// Brightest is the mixture of at most two library paints that reaches the most
// undertone chroma near a wheel hue in degrees.
func Brightest(wheelHue float64) Mixture {
	at := int(colour.Turn(wheelHue)/binWidth) % envelopeBins
	for away := range envelopeBins {
		for _, i := range []int{at + away, at - away + envelopeBins} {
			if b := brightest()[i%envelopeBins]; b.c > 0 {
				return b.mixture()
			}
		}
	}
	panic("the envelope is empty") // it is not: the library is embedded and tested
}

// envelopeCSV is what the library reaches, worked out before, for it takes most of a second: the library's version, then of each
// bin the envelope and the mixture that reaches most (wheel hue, chroma, two paints, the share of the second).
//
//go:embed data/envelope.csv
var envelopeCSV string

// envelope and brightest are had together.
var (
	envelope  = sync.OnceValue(func() *hueBins { e, _ := ofLibrary(); return e })
	brightest = sync.OnceValue(func() *[envelopeBins]hueSample { _, best := ofLibrary(); return best })
	ofLibrary = sync.OnceValues(func() (*hueBins, *[envelopeBins]hueSample) {
		if e, best, err := readEnvelope(envelopeCSV, curves()); err == nil {
			return e, best
		}
		return workOutEnvelope(curves()) // the library is another than the table was made of
	})
)

func workOutEnvelope(l *library) (*hueBins, *[envelopeBins]hueSample) {
	samples := reachedBy(l.paints)
	var best [envelopeBins]hueSample
	for _, s := range samples {
		if b := &best[s.bin()]; s.c > b.c {
			*b = s
		}
	}
	return buildEnvelope(samples), &best
}

// writeEnvelope writes down what the library of a version reaches, for readEnvelope.
func writeEnvelope(version string, e *hueBins, best *[envelopeBins]hueSample) string {
	var out strings.Builder
	fmt.Fprintf(&out, "%s\n", version)
	for i, b := range best {
		a, other := "", ""
		if b.a != nil {
			a, other = b.a.ID, b.b.ID
		}
		fmt.Fprintf(&out, "%v,%v,%v,%s,%s,%v\n", e[i], b.w, b.c, a, other, b.share)
	}
	return out.String()
}

// readEnvelope reads what a library reaches. It fails where it is of another version.
func readEnvelope(text string, l *library) (*hueBins, *[envelopeBins]hueSample, error) {
	version, table, _ := strings.Cut(text, "\n")
	rows, err := csv.NewReader(strings.NewReader(table)).ReadAll()
	if err != nil || version != l.version || len(rows) != envelopeBins {
		return nil, nil, fmt.Errorf("the envelope is of the library %s, and not of %s", version, l.version)
	}
	var e hueBins
	var best [envelopeBins]hueSample
	for i, row := range rows {
		b := &best[i]
		for at, to := range map[int]*float64{0: &e[i], 1: &b.w, 2: &b.c, 5: &b.share} {
			if *to, err = strconv.ParseFloat(row[at], 64); err != nil {
				return nil, nil, err
			}
		}
		if b.c == 0 {
			continue
		}
		if b.a, b.b = l.byID[strings.ToLower(row[3])], l.byID[strings.ToLower(row[4])]; b.a == nil || b.b == nil {
			return nil, nil, fmt.Errorf("the library has no %s or no %s", row[3], row[4])
		}
	}
	return &e, &best, nil
}

// at interpolates between the centres of the bins.
func (e *hueBins) at(w float64) float64 {
	i, j, f := neighbours(w)
	return e[i] + f*(e[j]-e[i])
}

// neighbours are the bins whose centres a wheel hue lies between, and how far
// along it lies (0 to 1).
func neighbours(w float64) (i, j int, f float64) {
	at := colour.Turn(w)/binWidth - 0.5
	low := math.Floor(at)
	i = (int(low) + envelopeBins) % envelopeBins
	return i, (i + 1) % envelopeBins, at - low
}

// Shares are n shares t of the second paint, from 0 to 1, even in the
// logit of the strength-weighted share between the two ends.
func Shares(n int, strengthA, strengthB float64) []float64 {
	const reach = 6 // the last inner samples hold about 1 part in 400
	out := make([]float64, n)
	for i := 1; i < n-1; i++ {
		logit := reach * (2*float64(i-1)/float64(n-3) - 1)
		weighted := 1 / (1 + math.Exp(-logit))
		a, b := (1-weighted)/strengthA, weighted/strengthB
		out[i] = b / (a + b)
	}
	out[n-1] = 1
	return out
}

// hueSample is the wheel hue and undertone chroma of a share of b in a.
type hueSample struct {
	w, c  float64
	a, b  *Paint
	share float64
}

func (s hueSample) bin() int { return int(s.w/binWidth) % envelopeBins }

func (s hueSample) mixture() Mixture { return Between(&s.a.alone, &s.b.alone, s.share) }

// reachedBy are the undertones of the paints of a library and of their mixtures
// of two.
func reachedBy(library []*Paint) []hueSample {
	shares := Shares(pairSamples, 1, 1)
	perPaint := make([][]hueSample, len(library))
	var workers errgroup.Group
	workers.SetLimit(runtime.GOMAXPROCS(0))
	for i := range library {
		workers.Go(func() error {
			perPaint[i] = pairsOf(library, i, shares)
			return nil
		})
	}
	if err := workers.Wait(); err != nil {
		panic(err) // no worker fails
	}

	var samples []hueSample
	for _, s := range perPaint {
		samples = append(samples, s...)
	}
	return samples
}

func buildEnvelope(samples []hueSample) *hueBins {
	var bins hueBins
	for _, s := range samples {
		b := &bins[s.bin()]
		*b = max(*b, s.c)
	}
	bins.bridge()
	bins.smooth()
	bins.cover(samples)
	return &bins
}

// pairsOf are the undertones of one paint and of its mixtures with all that
// follow it in the library.
func pairsOf(library []*Paint, i int, shares []float64) []hueSample {
	var out []hueSample
	keep := func(m *Mixture, b *Paint, share float64) {
		if u := m.bareUndertone(); u.HasHue() {
			out = append(out, hueSample{w: u.WheelHue, c: u.Chroma, a: library[i], b: b, share: share})
		}
	}
	a := &library[i].alone
	keep(a, library[i], 0)
	for _, other := range library[i+1:] {
		for _, t := range shares[1 : len(shares)-1] {
			m := Between(a, &other.alone, t)
			keep(&m, other, t)
		}
	}
	return out
}

// bridge fills empty bins linearly between their nearest filled neighbours.
func (e *hueBins) bridge() {
	filled := *e
	for i := range e {
		if filled[i] > 0 {
			continue
		}
		back, on := 1, 1
		for back < envelopeBins && filled[(i-back+envelopeBins)%envelopeBins] == 0 {
			back++
		}
		for on < envelopeBins && filled[(i+on)%envelopeBins] == 0 {
			on++
		}
		a, b := filled[(i-back+envelopeBins)%envelopeBins], filled[(i+on)%envelopeBins]
		e[i] = a + (b-a)*float64(back)/float64(back+on)
	}
}

// smooth rounds off notches and leaves peaks as they are.
func (e *hueBins) smooth() {
	was := *e
	for i := range e {
		a, b := was[(i+envelopeBins-1)%envelopeBins], was[(i+1)%envelopeBins]
		e[i] = max(was[i], (a+2*was[i]+b)/4)
	}
}

// cover raises bins until the line between their centres passes below no
// sample.
func (e *hueBins) cover(samples []hueSample) {
	for _, s := range samples {
		i, j, f := neighbours(s.w)
		short := s.c - (e[i] + f*(e[j]-e[i]))
		if short <= 0 {
			continue
		}
		if f < 0.5 {
			e[i] += short / (1 - f)
		} else {
			e[j] += short / f
		}
	}
}
