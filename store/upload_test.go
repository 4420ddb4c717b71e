package store_test

import (
	"bytes"
	"io"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/store"
	"gyrophane/store/storetest"
)

func TestAFileIsReceivedPieceByPiece(t *testing.T) {
	address := storetest.Database(t)
	s := on(t, address)
	ada, eve := painter(t, s, "Ada"), painter(t, s, "Eve")
	whole := make([]byte, 2*store.PieceBytes+1234)
	r := rand.NewChaCha8([32]byte{32})
	_, _ = r.Read(whole)
	size := int64(len(whole))
	send := func(at int64) (int64, error) {
		return s.Receive(ctx, ada.ID, at, size, whole[at:min(at+store.PieceBytes, size)])
	}
	_, err := send(store.PieceBytes)
	assert.ErrorContains(t, err, "from the beginning")
	have, err := send(0)
	require.NoError(t, err)
	assert.Equal(t, int64(store.PieceBytes), have)
	_, err = send(2 * store.PieceBytes)
	assert.ErrorContains(t, err, "from the beginning", "one is missing between")
	_, _, err = s.Uploaded(ctx, ada.ID)
	require.ErrorIs(t, err, store.ErrNotFound, "it is not whole")
	for range 2 { // an answer was lost, and it is sent again
		_, err = send(store.PieceBytes)
		require.NoError(t, err)
	}
	have, err = send(2 * store.PieceBytes)
	require.NoError(t, err)
	assert.Equal(t, size, have)

	from, bytesIn, err := s.Uploaded(ctx, ada.ID)
	require.NoError(t, err)
	require.Equal(t, size, bytesIn)
	back, err := io.ReadAll(io.NewSectionReader(from, 0, bytesIn))
	require.NoError(t, err)
	assert.True(t, bytes.Equal(whole, back))
	part := make([]byte, 100)
	_, err = from.ReadAt(part, store.PieceBytes-50) // over an edge
	require.NoError(t, err)
	assert.Equal(t, whole[store.PieceBytes-50:store.PieceBytes+50], part)
	_, err = from.ReadAt(part, size-10)
	assert.ErrorIs(t, err, io.EOF)
	_, _, err = s.Uploaded(ctx, eve.ID)
	assert.ErrorIs(t, err, store.ErrNotFound, "nobody else's")

	for name, c := range map[string]struct{ at, of, n int64 }{
		"too large": {0, store.MostArchiveBytes + 1, store.PieceBytes}, "nothing": {0, 0, 0}, "before it": {-store.PieceBytes, size, store.PieceBytes},
		"between": {5, size, store.PieceBytes}, "too short": {0, size, 10}, "too long": {0, 10, 11}, "behind it": {3 * store.PieceBytes, size, 10}, "of another": {2 * store.PieceBytes, size - 1, 1233},
	} {
		_, err := s.Receive(ctx, ada.ID, c.at, c.of, make([]byte, c.n))
		assert.ErrorAs(t, err, new(store.Refusal), name)
	}
	require.NoError(t, s.DropUpload(ctx, ada.ID))
	_, err = from.ReadAt(part, 0)
	assert.ErrorIs(t, err, io.ErrUnexpectedEOF, "it went while it was read")

	// What nobody came back for goes when the next one begins; where there is no room for it, it says so.
	_, err = send(0)
	require.NoError(t, err)
	do(t, address, "update uploads set created_at = now() - interval '2 hours'")
	_, err = s.Receive(ctx, eve.ID, 0, 10, make([]byte, 10))
	require.NoError(t, err)
	_, err = send(store.PieceBytes)
	assert.ErrorContains(t, err, "from the beginning")
	s.WatchDisk(func() (uint64, bool) { return s.Room.Free + 5, true })
	_, err = s.Receive(ctx, eve.ID, 0, 10, make([]byte, 10))
	assert.ErrorContains(t, err, "no room for a backup")
}
