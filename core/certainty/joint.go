package certainty

import (
	"encoding/binary"
	"fmt"
	"hash/fnv"
	"math"

	"gonum.org/v1/gonum/mat"

	"gyrophane/core/paint"
	"gyrophane/core/path"
)

// Joint is what readings say of some tubes together: of each its strength, its shade and its cleanness, in this order.
type Joint struct {
	Off        []float64   `json:"off"`        // how far each most likely lies from what the tube is taken for, in the units of Doubt
	Covariance [][]float64 `json:"covariance"` // of the same
}

// perTube is how many unknowns a tube has.
const perTube = 3

// Of how many tubes something is known together at the most, and how many unknowns those have.
const (
	MostJoint   = 60
	MostUnknown = perTube * MostJoint
)

// Check refuses what cannot be known of so many tubes.
func (j *Joint) Check(tubes int) error {
	n := perTube * tubes
	if tubes < 1 || tubes > MostJoint || len(j.Off) != n || len(j.Covariance) != n {
		return fmt.Errorf("of %d tubes %d unknowns are known together, not %d with %d rows", tubes, n, len(j.Off), len(j.Covariance))
	}
	sym := mat.NewSymDense(n, nil)
	for i, row := range j.Covariance {
		if len(row) != n || math.Abs(j.Off[i]) > mostOff || math.IsNaN(j.Off[i]) {
			return fmt.Errorf("row %d of what is known together is no row of %d figures", i+1, n)
		}
		for k, v := range row {
			if math.IsNaN(v) || math.Abs(v) > mostOff*mostOff || math.Abs(v-j.Covariance[k][i]) > 1e-9*(1+math.Abs(v)) {
				return fmt.Errorf("figure %d of row %d of what is known together is none of a covariance", k+1, i+1)
			}
			sym.SetSym(min(i, k), max(i, k), v)
		}
	}
	for i := range n {
		sym.SetSym(i, i, sym.At(i, i)+1e-9)
	}
	if !new(mat.Cholesky).Factorize(sym) {
		return fmt.Errorf("what is known together is no covariance")
	}
	return nil
}

// mostOff is the most that an unknown strays.
const mostOff = 100.0

// Doubt is what is not known of one of the tubes, by its place.
func (j *Joint) Doubt(tube int) Doubt {
	of := func(i int) float64 { return math.Sqrt(max(0, j.Covariance[perTube*tube+i][perTube*tube+i])) }
	return Doubt{Strength: of(0), Shade: of(1), Cleanness: of(2), Learned: j, Tube: tube}
}

// deviation is the standard deviation of what changes so with the unknowns.
func (j *Joint) deviation(slopes []float64) float64 {
	sum := 0.0
	for i, x := range slopes {
		if x == 0 {
			continue
		}
		for k, y := range slopes {
			sum += x * y * j.Covariance[i][k]
		}
	}
	return math.Sqrt(max(0, sum))
}

// Of is what is known of some of the tubes alone, by their places.
func (j *Joint) Of(tubes ...int) *Joint {
	out := &Joint{}
	var rows []int
	for _, t := range tubes {
		for i := range perTube {
			rows = append(rows, perTube*t+i)
		}
	}
	for _, r := range rows {
		out.Off = append(out.Off, j.Off[r])
		var of []float64
		for _, c := range rows {
			of = append(of, j.Covariance[r][c])
		}
		out.Covariance = append(out.Covariance, of)
	}
	return out
}

// Rows are what is known of one of the tubes together with the others: as it is kept with the tube.
type Rows struct {
	Place      int         `json:"place"` // among them, from 0
	Off        []float64   `json:"off"`   // of each of its unknowns,
	Covariance [][]float64 `json:"covariance"`
}

// Rows are those of one of the tubes, by its place.
func (j *Joint) Rows(tube int) *Rows {
	return &Rows{tube, j.Off[perTube*tube : perTube*(tube+1)], j.Covariance[perTube*tube : perTube*(tube+1)]}
}

// OfRows is what rows of one learning say together, in their order: of the tubes that they are of, be it that others were there. The
// error says why they do not belong to each other.
func OfRows(rows []*Rows) (*Joint, error) {
	out := &Joint{}
	for _, r := range rows {
		out.Off = append(out.Off, r.Off...)
		for _, row := range r.Covariance {
			var of []float64
			for _, other := range rows {
				from := perTube * other.Place
				if from < 0 || from+perTube > len(row) {
					return nil, fmt.Errorf("a row of %d figures knows no tube at place %d", len(row), other.Place)
				}
				of = append(of, row[from:from+perTube]...)
			}
			out.Covariance = append(out.Covariance, of)
		}
	}
	return out, out.Check(len(rows))
}

// Together is what is known of some paints together.
func Together(paints []*paint.Paint, doubt Doubts) *Joint {
	out := &Joint{}
	var of []Doubt
	for _, p := range paints {
		of = append(of, doubt(p))
	}
	for i, d := range of {
		off := make([]float64, perTube)
		if d.Learned != nil {
			off = d.Learned.Rows(d.Tube).Off
		}
		out.Off = append(out.Off, off...)
		for u, deviation := range d.deviations() {
			row := make([]float64, perTube*len(of))
			for k, other := range of {
				switch {
				case d.Learned != nil && d.Learned == other.Learned:
					copy(row[perTube*k:perTube*(k+1)], d.Learned.Covariance[perTube*d.Tube+u][perTube*other.Tube:perTube*(other.Tube+1)])
				case i == k:
					row[perTube*k+u] = deviation * deviation
				}
			}
			out.Covariance = append(out.Covariance, row)
		}
	}
	return out
}

func (d Doubt) deviations() [perTube]float64 {
	return [perTube]float64{d.Strength, d.Shade, d.Cleanness}
}

// Slopes are how the logarithm of the ratio half way along a path changes with the unknowns of its two paints, in the units
// of Doubt, at the tubes as they most likely are.
func Slopes(p *path.Path, s path.Spacing, doubt Doubts) (out [2][perTube]float64) {
	of := [2]Doubt{doubt(p.A), doubt(p.B)}
	if of[0].Learned != nil || of[1].Learned != nil {
		p = path.New(of[0].likeliest(p.A), of[1].likeliest(p.B))
	}
	a := p.A
	step := Steps(p, s, func(p *paint.Paint) Doubt {
		d := of[1]
		if p == a {
			d = of[0]
		}
		d.Learned, d.Tube = nil, 0
		return d
	}, HalfWay)[0]
	for k := range out {
		for u, deviation := range of[k].deviations() {
			if deviation > 0 {
				out[k][u] = step.ratio[perTube*k+u] / deviation
			}
		}
	}
	return out
}

// Likeliest is a paint as what is known of it has it.
func Likeliest(p *paint.Paint, doubt Doubts) *paint.Paint { return doubt(p).likeliest(p) }

// likeliest is a tube as readings most likely have it, where they say something of it.
func (d Doubt) likeliest(p *paint.Paint) *paint.Paint {
	if d.Learned == nil {
		return p
	}
	off := d.Learned.Off[perTube*d.Tube : perTube*(d.Tube+1)]
	out, err := p.Variant(off[1], min(max(off[2], paint.MostDuller), paint.MostCleaner))
	if err != nil {
		return p
	}
	if out, err = out.Tube(p.ID, paint.BoundedStrength(math.Exp(off[0]))); err != nil {
		return p
	}
	return out
}

// correlation is that of the unknowns of two tubes.
func correlation(of [2]Doubt) *mat.SymDense {
	r := mat.NewSymDense(most, nil)
	unknown := func(i int) (j *Joint, row int, deviation float64) {
		d := of[i/perTube]
		return d.Learned, perTube*d.Tube + i%perTube, d.deviations()[i%perTube]
	}
	for i := range most {
		r.SetSym(i, i, 1)
		in, row, deviation := unknown(i)
		for k := range i {
			if other, column, by := unknown(k); in != nil && other == in && deviation*by > 0 {
				r.SetSym(k, i, in.Covariance[row][column]/(deviation*by))
			}
		}
	}
	return r
}

// fingerprint tells what is known of two tubes together from anything else (FNV-1a); 0 where nothing is.
func fingerprint(of [2]Doubt) uint64 {
	if of[0].Learned == nil && of[1].Learned == nil {
		return 0
	}
	h := fnv.New64a()
	r := correlation(of)
	for i := range most {
		for k := range i {
			_ = binary.Write(h, binary.LittleEndian, r.At(i, k)) // a hash never fails
		}
	}
	for _, d := range of {
		if d.Learned != nil {
			_ = binary.Write(h, binary.LittleEndian, d.Learned.Off[perTube*d.Tube:perTube*(d.Tube+1)])
		}
		_ = binary.Write(h, binary.LittleEndian, d.Learned != nil)
	}
	return h.Sum64()
}

// alongIndependent brings effects that are those of one deviation of each unknown by itself to those along directions
// that stray independently of each other, where the unknowns correlate so.
func (s *Step) alongIndependent(r *mat.SymDense) {
	var chol mat.Cholesky
	widened := mat.NewSymDense(most, nil)
	widened.CopySym(r)
	for i := range most {
		widened.SetSym(i, i, r.At(i, i)+1e-9)
	}
	if !chol.Factorize(widened) {
		return // of no covariance: Check sees to it
	}
	var lower mat.TriDense
	chol.LTo(&lower)
	for _, effects := range []*[most]float64{&s.ratio, &s.retention, &s.kept, &s.chroma} {
		var along [most]float64
		for i, by := range effects {
			for k := range i + 1 {
				along[k] += lower.At(i, k) * by
			}
		}
		*effects = along
	}
}
