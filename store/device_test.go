package store_test

import (
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
)

func soon() time.Time { return time.Now().Add(time.Minute) }

func TestADeviceComesInWithACodeOnceItIsLetIn(t *testing.T) {
	s := fresh(t)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	asks := store.DeviceCode{Device: "Chrome on Android", Check: "47", AtHome: true, ExpiresAt: soon()}

	require.NoError(t, s.NewDeviceCode(ctx, ada.ID, "first", soon()))
	require.NoError(t, s.NewDeviceCode(ctx, ada.ID, "second", soon()))
	_, _, err := s.PainterOfCode(ctx, "first")
	assert.ErrorIs(t, err, store.ErrNotFound, "a new one takes the place of the one before")
	one, whose, err := s.PainterOfCode(ctx, "second")
	require.NoError(t, err)
	assert.Equal(t, "Ada", whose.Name)
	assert.False(t, one.Spent(), "to look does not spend it")
	assert.ErrorIs(t, s.AnswerDevice(ctx, ada.ID, "", true, soon()), store.ErrNotFound, "nobody has asked")

	require.NoError(t, s.SpendDeviceCode(ctx, "second", "a token", asks))
	assert.ErrorIs(t, s.SpendDeviceCode(ctx, "second", "another's token", asks), store.ErrSpent)
	_, _, err = s.BySession(ctx, "a token")
	assert.ErrorIs(t, err, store.ErrNotFound, "not before it is let in")
	one, err = s.DeviceCodeOf(ctx, ada.ID)
	require.NoError(t, err)
	assert.True(t, one.Spent())
	assert.Equal(t, "Chrome on Android", one.Device)
	assert.ErrorIs(t, s.AnswerDevice(ctx, ada.ID, "48", true, soon()), store.ErrNotFound, "another than was seen")
	assert.ErrorIs(t, s.AnswerDevice(ctx, eve.ID, "47", true, soon()), store.ErrNotFound, "another's")

	require.NoError(t, s.AnswerDevice(ctx, ada.ID, "47", true, soon()))
	session, who, err := s.BySession(ctx, "a token")
	require.NoError(t, err)
	assert.Equal(t, ada.ID, who.ID)
	assert.True(t, session.AtHome)
	assert.Equal(t, "Chrome on Android", session.Device)
	assert.ErrorIs(t, s.AnswerDevice(ctx, ada.ID, "47", true, soon()), store.ErrNotFound, "once")
	_, _, err = s.PainterOfCode(ctx, "second")
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestADeviceIsSentAwayTakenBackOrTooLate(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	asks := store.DeviceCode{Device: "a phone", Check: "11", ExpiresAt: soon()}
	for name, end := range map[string]func(code string) error{
		"sent away":  func(string) error { return s.AnswerDevice(ctx, ada.ID, "11", false, soon()) },
		"taken back": func(string) error { return s.EndDeviceCode(ctx, ada.ID) },
		"too late":   func(string) error { return s.NewDeviceCode(ctx, ada.ID, "late", time.Now().Add(-time.Second)) },
	} {
		t.Run(name, func(t *testing.T) {
			require.NoError(t, s.NewDeviceCode(ctx, ada.ID, name, soon()))
			require.NoError(t, s.SpendDeviceCode(ctx, name, "token of "+name, asks))
			require.NoError(t, end(name))
			assert.ErrorIs(t, s.AnswerDevice(ctx, ada.ID, "11", true, soon()), store.ErrNotFound)
			_, _, err := s.BySession(ctx, "token of "+name)
			assert.ErrorIs(t, err, store.ErrNotFound)
		})
	}
	assert.ErrorIs(t, s.SpendDeviceCode(ctx, "late", "a token", asks), store.ErrNotFound)
}

func TestACodeIsSpentByOneOfMany(t *testing.T) {
	s := fresh(t)
	ada := painter(t, s, "Ada")
	require.NoError(t, s.NewDeviceCode(ctx, ada.ID, "code", soon()))
	var wg sync.WaitGroup
	answers := make(chan error, 8)
	for i := range cap(answers) {
		wg.Go(func() {
			answers <- s.SpendDeviceCode(ctx, "code", string(rune('a'+i)), store.DeviceCode{Check: "1", ExpiresAt: soon()})
		})
	}
	wg.Wait()
	close(answers)
	in := 0
	for err := range answers {
		if err == nil {
			in++
		} else {
			assert.ErrorIs(t, err, store.ErrSpent)
		}
	}
	assert.Equal(t, 1, in)
}
