package api_test

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"math/rand/v2"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"gyrophane/core/bench"
	"gyrophane/core/paint"
	"gyrophane/wire"
)

// drawnSheet is a picture of a wheel's sheet as somebody holds a camera straight above it in
// even light: its places in the colours that they aim at, its marks, and paper.
func drawnSheet(t *testing.T, plan wire.BenchPlan) []byte {
	t.Helper()
	const scale, around = 4.0, 14.0 // pixels to a mm, mm of paper
	s := bench.Blank(bench.Settings{Diameter: plan.Width, Inner: plan.Width / 8})
	marks := s.Marks()
	reach := marks[2][0] + around
	size := int(2 * reach * scale)
	img := image.NewNRGBA(image.Rect(0, 0, size, size))
	of := func(x, y float64) color.NRGBA {
		for n, m := range marks {
			switch r := math.Hypot(x-m[0], y-m[1]) / bench.MarkRadius; {
			case r > 1:
			case n == 0 && r < bench.MarkDot, n == 1, r > bench.MarkRing:
				return color.NRGBA{R: 30, G: 30, B: 30, A: 255}
			}
		}
		for _, r := range plan.Regions {
			at := bench.Shape{From: r.Shape.From, To: r.Shape.To, Inner: r.Shape.Inner, Outer: r.Shape.Outer}
			if at.Holds(x, y, 0) {
				v, err := strconv.ParseUint(strings.TrimPrefix(r.SRGB, "#"), 16, 32)
				require.NoError(t, err)
				return color.NRGBA{R: uint8(v >> 16), G: uint8(v >> 8), B: uint8(v), A: 255}
			}
		}
		return color.NRGBA{R: 243, G: 243, B: 243, A: 255}
	}
	for j := range size {
		for i := range size {
			img.SetNRGBA(i, j, of((float64(i)+0.5)/scale-reach, (float64(j)+0.5)/scale-reach))
		}
	}
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, img))
	return b.Bytes()
}

// readOf are readings of all places of a sitting in gouache, of tubes that are so many times
// as strong, as a meter strays.
func readOf(t *testing.T, plan wire.BenchPlan, strengths map[string]float64) string {
	t.Helper()
	in, err := paint.ParseMedium("gouache")
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(26, 5))
	var all []string
	for _, region := range plan.Regions {
		var parts []paint.Part
		for _, one := range strings.Fields(region.Swatch) {
			id, amount, _ := strings.Cut(one, "=")
			p, err := paint.Find(id)
			require.NoError(t, err)
			v, err := strconv.ParseFloat(amount, 64)
			require.NoError(t, err)
			parts = append(parts, paint.Part{Paint: p, Parts: v})
		}
		m, err := paint.Strengthened(parts, func(n int) float64 {
			if g := strengths[parts[n].Paint.ID]; g > 0 {
				return g
			}
			return 1
		})
		require.NoError(t, err)
		seen := m.AsPainted(in, false)
		lab := seen.Lab()
		all = append(all, fmt.Sprintf(`{"slot":%q,"lab":[%g,%g,%g],"source":"photo","spread":0.4}`, region.ID, min(100, lab.L+0.4*r.NormFloat64()), lab.A+0.4*r.NormFloat64(), lab.B+0.4*r.NormFloat64()))
	}
	return `{"readings":[` + strings.Join(all, ",") + `]}`
}
