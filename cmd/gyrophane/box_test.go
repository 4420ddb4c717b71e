package main

import (
	"context"
	"log/slog"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
	"gyrophane/wire"
)

func TestASystemIsChosenFromTheDemoBoxWithoutADatabase(t *testing.T) {
	t.Setenv("DATABASE_URL", "")
	var c wire.Chosen
	callJSON(t, "choose --kind triad --from box", &c)
	assert.Equal(t, "box", c.From)
	assert.Len(t, c.Best.Paints, 3)
	require.NotNil(t, c.Best.Price, "its tubes have prices")
	assert.NotEmpty(t, c.BuyNext)
	code, _, said := call(t, "choose --kind split --from box --aim targets --contains PB28")
	assert.Zero(t, code)
	assert.Contains(t, said, "The box and its wanted colours: the made-up demo studio, for DATABASE_URL is not set.")
	if !testing.Short() {
		callJSON(t, "choose --kind triad --from library --aim targets", &c)
		require.NotNil(t, c.Best.MeanDE)
	}
	code, _, said = call(t, "choose --from box --painter Ada")
	assert.Equal(t, 2, code)
	assert.Contains(t, said, "DATABASE_URL is not set")
}

func TestASystemIsChosenFromTheBoxOfTheApplication(t *testing.T) {
	url := storetest.Database(t)
	t.Setenv("DATABASE_URL", url)
	code, _, said := call(t, "choose --from box")
	assert.Equal(t, 2, code)
	assert.Contains(t, said, "holds no studio: start the application on it once", "nothing was ever kept there")

	s, err := store.Open(url)
	require.NoError(t, err)
	defer s.Close()
	ready := make(chan struct{})
	prepare(t.Context(), s, func(context.Context) error { return nil }, true, slog.New(slog.DiscardHandler), ready)
	var c wire.Chosen
	callJSON(t, "choose --kind split --from box", &c)
	assert.Len(t, c.Best.Paints, 6)
	assert.NotEmpty(t, c.Best.Roles[0])

	_, err = s.CreatePainter(t.Context(), "Ada", "")
	require.NoError(t, err)
	for line, says := range map[string]string{
		"choose --from box":                "several painters keep a box here",
		"choose --from box --painter Nero": "nobody of that name",
		"choose --from box --painter ada":  "our box is empty",
	} {
		code, _, said := call(t, line)
		assert.Equal(t, 2, code, line)
		assert.Contains(t, said, says, line)
	}
	t.Setenv("DATABASE_URL", "nonsense")
	code, _, said = call(t, "choose --from box")
	assert.Equal(t, 2, code)
	assert.Contains(t, said, "postgres://")
}

func TestASystemIsChosenFromABoxFile(t *testing.T) {
	t.Setenv("DATABASE_URL", "")
	dir := t.TempDir()
	file := func(name, text string) string {
		at := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(at, []byte(text), 0o600))
		return at
	}
	box := file("box.csv", "paint,grade,price,archived\nPY184,artist,13.5,no\nPR254,artist,9,no\nPR254,student,4,no\nPB29,artist,8,no\nPB60,artist,1,yes\n")
	var c wire.Chosen
	callJSON(t, "choose --kind triad --from box --aim price --box-file "+box, &c)
	assert.Equal(t, []string{"PY184", "PR254-2", "PB29"}, c.Best.Paints, "the cheaper of two tubes; what is archived is left alone")
	require.NotNil(t, c.Best.Price)
	assert.InDelta(t, 25.5, *c.Best.Price, 1e-9)
	for name, says := range map[string]string{
		file("odd.csv", "paint,grade\nPX999,artist\n"): "line 2",
		file("none.txt", "\x00\x01"):                   "--box-file",
		filepath.Join(dir, "missing.csv"):              "no such file",
	} {
		code, _, said := call(t, "choose --from box --box-file "+name)
		assert.Equal(t, 2, code, name)
		assert.Contains(t, said, says, name)
	}
}
