// Package storetest gives tests a PostgreSQL database of their own.
package storetest

import (
	"context"
	"crypto/rand"
	"database/sql"
	"net/url"
	"os"
	"strings"
	"testing"

	_ "github.com/jackc/pgx/v5/stdlib" // the database driver
	"github.com/stretchr/testify/require"
)

// Database makes an empty database on the test cluster, dropped at the end of
// the test, and returns its address. A missing cluster fails the test.
func Database(t testing.TB) string {
	t.Helper()
	base := os.Getenv("GYROPHANE_TEST_DATABASE_URL")
	require.NotEmpty(t, base, "GYROPHANE_TEST_DATABASE_URL is not set: run make test, which starts a PostgreSQL for the tests")
	admin, err := sql.Open("pgx", base)
	require.NoError(t, err)
	name := "test_" + strings.ToLower(rand.Text())
	_, err = admin.ExecContext(context.Background(), "create database "+name)
	require.NoError(t, err, "the test database cluster must answer")
	t.Cleanup(func() {
		_, err := admin.ExecContext(context.Background(), "drop database "+name+" with (force)")
		require.NoError(t, err)
		require.NoError(t, admin.Close())
	})
	u, err := url.Parse(base)
	require.NoError(t, err)
	u.Path = "/" + name
	return u.String()
}
