package paint

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
)

func TestAStirredMixtureIsItsParts(t *testing.T) {
	parts := []Part{{find(t, "PY74"), 3}, {find(t, "PB29"), 2}}
	p, err := Stir("green", "green", parts...)
	require.NoError(t, err)
	m, err := Mix(parts...)
	require.NoError(t, err)
	assert.Equal(t, m.K(), p.alone.K())
	assert.Equal(t, parts, p.Of)
	assert.Equal(t, 1.0, p.Strength())
	_, err = Stir("nothing", "nothing")
	assert.Error(t, err)
}

func TestGlazesOfOneLayerAreFilmsAndNoLayerIsTheGround(t *testing.T) {
	p := find(t, "PR122").alone
	one, err := Glaze(Paper(), []Layer{{p, 0.6}}, Gloss)
	require.NoError(t, err)
	film := p.Film(0.6, WhiteGround, Gloss)
	assert.InDeltaSlice(t, film[:], one[:], 1e-12)
	two, err := Glaze(Paper(), []Layer{{p, 0.3}, {p, 0.3}}, Gloss)
	require.NoError(t, err)
	assert.InDeltaSlice(t, film[:], two[:], 1e-9, "two layers of one paint are one of twice the thickness")
	none, err := Glaze(colour.Flat(0.5), nil, Surface{})
	require.NoError(t, err)
	flat := colour.Flat(0.5)
	assert.InDeltaSlice(t, flat[:], none[:], 1e-12)
	black := find(t, "PBk9").alone
	over, err := Glaze(black.AsGround(), []Layer{{find(t, "PY35").alone, 1}}, Matt)
	require.NoError(t, err)
	under, err := Glaze(Paper(), []Layer{{find(t, "PY35").alone, 1}, {black, 1}}, Matt)
	require.NoError(t, err)
	assert.Greater(t, over.XYZ(colour.D65).Y, under.XYZ(colour.D65).Y, "yellow over black is not black over yellow")
	for _, x := range []float64{0, 0.01, 13, math.NaN()} {
		_, err := Glaze(Paper(), []Layer{{p, x}}, Gloss)
		assert.ErrorContains(t, err, "layer 1")
	}
	_, err = Glaze(Paper(), make([]Layer, 5), Gloss)
	assert.ErrorContains(t, err, "at most 4")
}
