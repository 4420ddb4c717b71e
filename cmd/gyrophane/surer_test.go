package main

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/wire"
)

func TestWhatToPaintToBeSurerIsAsked(t *testing.T) {
	const system = "surer --system triad PY65 PR254 PB29 --medium gouache --by instrument"
	var before, after wire.Surer
	callJSON(t, system, &before)
	require.NotEmpty(t, before.Swatches)
	assert.Less(t, before.Swatches[0].Spread, before.Now)
	callJSON(t, system+" --readings "+readingsOf(t, 1.3), &after)
	assert.Less(t, after.Now, 0.6*before.Now, "what was read counts")
	assert.Contains(t, text(t, system), "known to")
	var same wire.Surer
	callJSON(t, "surer --system three:triad:PY65,PR254,PB29 --medium gouache --by instrument", &same)
	assert.Equal(t, before, same, "as systems are compared")
	code, _, says := call(t, system+" --by nose")
	assert.NotZero(t, code)
	assert.Contains(t, says, "choose eye, photo or instrument")
}
