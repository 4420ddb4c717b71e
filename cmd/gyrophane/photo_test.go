package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/wire"
)

func TestASheetIsPhotographedAndRead(t *testing.T) {
	dir := t.TempDir()
	plan, shot := filepath.Join(dir, "plan.json"), filepath.Join(dir, "out.jpg")
	require.NoError(t, os.WriteFile(plan, []byte(text(t, "plan PY65 PR254 PB29 --medium gouache --json")), 0o600))
	text(t, "photo --plan "+plan+" --strength PB29=1.6 --seed 1 --size 1200x900 "+shot)
	var read wire.PhotoRead
	callJSON(t, "read "+shot+" --plan "+plan, &read)
	assert.Empty(t, read.Refused)
	assert.Len(t, read.Readings, 12)
	assert.Contains(t, text(t, "read "+shot+" --plan "+plan), "light of about")

	text(t, "photo --plan "+plan+" --light A --size 1200x900 "+shot)
	callJSON(t, "read "+shot+" --plan "+plan, &read)
	assert.Contains(t, read.Refused, "a warm lamp")
	assert.Empty(t, read.Readings)

	for args, says := range map[string]string{
		"photo " + shot: "name a plan",
		"photo --plan " + plan + " --strength PB29 " + shot:    "write PAINT=TIMES",
		"photo --plan " + plan + " --size large " + shot:       "write WIDTHxHEIGHT",
		"photo --plan " + plan + " --size 10x90000 " + shot:    "is not taken",
		"photo --plan " + shot + " " + shot:                    "this is no plan",
		"read " + plan + " --plan " + plan:                     "no PNG or JPEG",
		"read " + filepath.Join(dir, "no") + " --plan " + plan: "no such file",
	} {
		code, _, errText := call(t, args)
		assert.Equal(t, 2, code, args)
		assert.Contains(t, errText, says, args)
	}
}
