package api

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"gyrophane/store"
)

func TestTokensExpireAndAreSigned(t *testing.T) {
	now := time.Unix(1_700_000_000, 0)
	key, p := []byte("a key of the server"), store.Painter{ID: 7, PassphraseHash: "h"}
	good := token(key, p, now.Add(time.Hour))
	id, mark, ok := readToken(key, good, now)
	assert.True(t, ok)
	assert.Equal(t, int64(7), id)
	assert.Equal(t, passphraseMark(p), mark)
	_, _, ok = readToken(key, good, now.Add(2*time.Hour))
	assert.False(t, ok, "expired")
	_, _, ok = readToken([]byte("another key"), good, now)
	assert.False(t, ok, "signed by somebody else")
	assert.NotEqual(t, mark, passphraseMark(store.Painter{ID: 7}), "a changed passphrase leaves another mark")
}

func FuzzReadToken(f *testing.F) {
	now := time.Unix(1_700_000_000, 0)
	key := []byte("a key of the server")
	good := token(key, store.Painter{ID: 7}, now.Add(time.Hour))
	for _, seed := range []string{good, good[:len(good)-1], "", ".", "7.9.x.", "1.2.3.4", "....."} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		id, _, ok := readToken(key, text, now)
		if ok != (text == good) {
			t.Fatalf("%q read as painter %d", text, id)
		}
	})
}
