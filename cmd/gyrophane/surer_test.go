package main

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/wire"
)

func TestWhatToPaintToBeSurerIsAsked(t *testing.T) {
	const system = "surer --system triad PY65 PR254 PB29 --medium gouache --by instrument"
	var before, after wire.SwatchPlan
	callJSON(t, system, &before)
	require.NotEmpty(t, before.Swatches)
	assert.Less(t, before.Swatches[0].Spread, before.Now)
	callJSON(t, system+" --readings "+readingsOf(t, 1.3), &after)
	assert.Less(t, after.Now, 0.6*before.Now, "what was read counts")
	assert.Contains(t, text(t, system), "known to")
	var same wire.SwatchPlan
	callJSON(t, "surer --system three:triad:PY65,PR254,PB29 --medium gouache --by instrument", &same)
	assert.Equal(t, before, same, "as systems are compared")
	var box wire.SwatchPlan
	callJSON(t, "surer --of-box PY65 PR254 PB29 --medium gouache --by instrument", &box)
	assert.InDelta(t, before.Now, box.Now, 0.1, "every two of three are the sections of their triad")
	require.NotEmpty(t, box.Swatches)
	code, _, says := call(t, "surer --of-box PY65")
	assert.NotZero(t, code)
	assert.Contains(t, says, "no recipe of two")
	code, _, says = call(t, system+" --by nose")
	assert.NotZero(t, code)
	assert.Contains(t, says, "choose eye, photo or instrument")
}
