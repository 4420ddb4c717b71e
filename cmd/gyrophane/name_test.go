package main

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/wire"
)

func TestNamesAreLookedUpOnTheCommandLine(t *testing.T) {
	var got wire.NamedTube
	callJSON(t, "name cad. red med. hue", &got)
	require.NotEmpty(t, got.Found)
	assert.Equal(t, "PR254", got.Found[0].Paint)
	assert.NotEmpty(t, got.Found[0].How)
	assert.True(t, got.NotSure)
	assert.Contains(t, text(t, "name sap green"), "PG7 PY150")
	assert.Contains(t, text(t, "name phthalo red"), "No paint is usually called")
	code, _, says := call(t, "name rose --sold crates")
	assert.Equal(t, 2, code)
	assert.Contains(t, says, "artists, students or pans")
}
