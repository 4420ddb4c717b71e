// Package storetest gives tests a PostgreSQL database of their own.
package storetest

import (
	"context"
	"crypto/rand"
	"database/sql"
	"net/url"
	"os"
	"strings"
	"sync"
	"testing"

	_ "github.com/jackc/pgx/v5/stdlib" // the database driver
	"github.com/stretchr/testify/require"
)

// Database makes an empty database on the test cluster, dropped at the end of
// the test, and returns its address. A missing cluster fails the test.
func Database(t testing.TB) string {
	t.Helper()
	return create(t, "test_"+strings.ToLower(rand.Text()), "")
}

var (
	lock      sync.Mutex
	templates = map[string]string{}
)

// Copy makes a database as Database does, which is a copy of one that prepare has
// filled: once for each name, and anew in each run of a package's tests, since
// several run beside each other on one cluster. That is many times as quick as
// filling it again. The filled ones go when the cluster does.
func Copy(t testing.TB, name string, prepare func(address string) error) string {
	t.Helper()
	lock.Lock()
	defer lock.Unlock()
	template, ok := templates[name]
	if !ok {
		template = "template_" + name + "_" + strings.ToLower(rand.Text())
		do(t, "create database "+template)
		require.NoError(t, prepare(address(t, template)))
		templates[name] = template
	}
	return create(t, "test_"+strings.ToLower(rand.Text()), " template "+template)
}

func create(t testing.TB, name, like string) string {
	t.Helper()
	do(t, "create database "+name+like)
	t.Cleanup(func() { do(t, "drop database "+name+" with (force)") })
	return address(t, name)
}

// cluster is the address of the test cluster.
func cluster(t testing.TB) string {
	t.Helper()
	base := os.Getenv("GYROPHANE_TEST_DATABASE_URL")
	require.NotEmpty(t, base, "GYROPHANE_TEST_DATABASE_URL is not set: run make test, which starts a PostgreSQL for the tests")
	return base
}

func do(t testing.TB, statement string) {
	t.Helper()
	admin, err := sql.Open("pgx", cluster(t))
	require.NoError(t, err)
	defer admin.Close()
	_, err = admin.ExecContext(context.Background(), statement)
	require.NoError(t, err, "the test database cluster must answer")
}

func address(t testing.TB, database string) string {
	t.Helper()
	u, err := url.Parse(cluster(t))
	require.NoError(t, err)
	u.Path = "/" + database
	return u.String()
}

// Do runs a statement on a database of the test cluster.
func Do(t testing.TB, address, statement string) {
	t.Helper()
	db, err := sql.Open("pgx", address)
	require.NoError(t, err)
	defer db.Close()
	_, err = db.ExecContext(context.Background(), statement)
	require.NoError(t, err, statement)
}
