package main

import (
	"crypto/tls"
	"crypto/x509"
	"net/netip"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTheAddressAtHomeIsAPrivateOneByWhichTheMachineIsReached(t *testing.T) {
	at := func(of ...string) (out []placed) {
		for i := 0; i < len(of); i += 2 {
			out = append(out, placed{netip.MustParseAddr(of[i+1]), of[i]})
		}
		return out
	}
	for name, c := range map[string]struct {
		has    []placed
		routed string
		want   string
	}{
		"one":                           {at("eth0", "192.168.1.20"), "192.168.1.20", "192.168.1.20"},
		"the one that packets leave by": {at("eth0", "10.0.0.4", "wlan0", "192.168.1.20"), "192.168.1.20", "192.168.1.20"},
		"no route":                      {at("wlan0", "fd00::5", "wlan0", "192.168.1.20"), "0.0.0.0", "192.168.1.20"},
		"beside a virtual one":          {at("docker0", "172.17.0.1", "eth0", "10.0.0.4"), "172.17.0.1", "10.0.0.4"},
		"a public one too":              {at("eth0", "203.0.113.9", "eth1", "10.0.0.4"), "203.0.113.9", "10.0.0.4"},
		"a newer network alone":         {at("eth0", "fd00::5"), "0.0.0.0", "fd00::5"},
		"none":                          {at("eth0", "203.0.113.9", "docker0", "172.17.0.1"), "203.0.113.9", ""},
		"no network":                    {nil, "0.0.0.0", ""},
	} {
		t.Run(name, func(t *testing.T) {
			got, err := chooseHome(c.has, netip.MustParseAddr(c.routed))
			if c.want == "" {
				require.ErrorContains(t, err, "no private address")
				return
			}
			require.NoError(t, err)
			assert.Equal(t, c.want, got.String())
		})
	}
}

func TestWhatIsNotAtHomeIsRefused(t *testing.T) {
	t.Setenv("DATABASE_URL", "postgres://nobody@127.0.0.1:1/nothing")
	t.Chdir(t.TempDir())
	for line, says := range map[string]string{
		"serve --listen 127.0.0.1:0 --lan --public":                   "goes neither with --public",
		"serve --listen 127.0.0.1:0 --lan --trusted-proxies 10.0.0.1": "goes neither with --public",
		"serve --listen 0.0.0.0:0 --lan":                              "beside loopback",
		"serve --listen 127.0.0.1:0 --lan=203.0.113.9":                "no private address",
		"serve --listen 127.0.0.1:0 --lan=everywhere":                 "give a private address",
		"serve --listen 127.0.0.1:0 --lan=0.0.0.0":                    "no private address",
		"serve --listen 127.0.0.1:0 --tls-self":                       "use it with --lan",
		"serve --listen 127.0.0.1:0 --public --tls-self":              "use it with --lan",
		"serve --listen 127.0.0.1:0 --lan --tls-cert a.pem":           "go together",
		"serve --listen 127.0.0.1:0 --tls-cert a.pem --tls-key b.pem": "with --lan or --public",
		"serve --lan=127.0.0.2 --tls-cert a.pem --tls-key b.pem":      "--tls-cert: open a.pem",
		"serve --lan --tls-self --tls-cert a.pem --tls-key b.pem":     "choose one",
	} {
		code, _, said := call(t, line)
		assert.Equal(t, 2, code, line)
		assert.Contains(t, said, says, line)
	}
}

func TestTheAuthorityIsMadeOnceAndVouchesForTheHouseAlone(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "authority")
	made, err := openAuthority(folder)
	require.NoError(t, err)
	again, err := openAuthority(folder)
	require.NoError(t, err)
	assert.Equal(t, made.fingerprint(), again.fingerprint())
	assert.Regexp(t, `^([0-9A-F]{2}:){31}[0-9A-F]{2}$`, made.fingerprint())
	info, err := os.Stat(filepath.Join(folder, keyIn))
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())

	roots := x509.NewCertPool()
	roots.AddCert(made.certificate)
	for address, good := range map[string]bool{"192.168.1.20": true, "10.1.2.3": true, "fd00::5": true, "127.0.0.2": true, "203.0.113.9": false, "8.8.8.8": false, "2001:db8::1": false} {
		pair, err := again.issue(netip.MustParseAddr(address), []string{address, "studio", "studio.local"})
		require.NoError(t, err)
		for _, host := range []string{address, "studio.local"} {
			_, err = pair.Leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: host})
			assert.Equal(t, good, err == nil, "%s: %v", host, err)
		}
		_, err = pair.Leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: "example.org"})
		assert.Error(t, err)
	}
	config := made.vouched(netip.MustParseAddr("10.1.2.3"), nil)
	first, err := config.GetCertificate(&tls.ClientHelloInfo{})
	require.NoError(t, err)
	second, err := config.GetCertificate(&tls.ClientHelloInfo{})
	require.NoError(t, err)
	assert.Same(t, first, second, "made once, while it is good")

	require.NoError(t, os.Remove(filepath.Join(folder, certificateIn)))
	_, err = openAuthority(folder)
	assert.ErrorContains(t, err, "not whole", "a key is never written over")
	require.NoError(t, os.WriteFile(filepath.Join(folder, certificateIn), []byte("nonsense"), 0o600))
	_, err = openAuthority(folder)
	assert.ErrorContains(t, err, "cannot be read")
}
