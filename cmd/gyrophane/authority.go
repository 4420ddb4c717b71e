package main

import (
	"crypto"
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"net/netip"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"time"
)

// authority vouches for this server at home, to devices on which its certificate was installed. It
// can vouch for private addresses and names of the house alone, so that its key, were it stolen, would
// open nothing of the Internet's.
type authority struct {
	certificate *x509.Certificate
	key         crypto.Signer
}

const (
	authorityYears = 10
	leafDays       = 300 // phones take none that is good for more than 825
	leafRenewed    = 30 * 24 * time.Hour
	certificateIn  = "certificate.pem"
	keyIn          = "key.pem"
)

// privateNetworks are what the authority may vouch for: RFC 1918, RFC 4193, and what stays on a link.
var privateNetworks = []string{"10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8", "fc00::/7", "fe80::/10"}

// openAuthority reads the authority that is kept in a folder, or makes one where there is none.
func openAuthority(folder string) (*authority, error) {
	pair, err := tls.LoadX509KeyPair(filepath.Join(folder, certificateIn), filepath.Join(folder, keyIn))
	if errors.Is(err, fs.ErrNotExist) {
		left, _ := os.ReadDir(folder)
		if len(left) > 0 {
			return nil, fmt.Errorf("the authority in %s is not whole: put back %s and %s, or take the folder away (devices then install it anew)", folder, certificateIn, keyIn)
		}
		return newAuthority(folder)
	}
	if err != nil {
		return nil, fmt.Errorf("the authority in %s cannot be read: %w", folder, err)
	}
	key, ok := pair.PrivateKey.(crypto.Signer)
	switch {
	case !ok || !pair.Leaf.IsCA:
		return nil, fmt.Errorf("%s holds no authority", filepath.Join(folder, certificateIn))
	case time.Now().AddDate(0, 0, leafDays).After(pair.Leaf.NotAfter):
		return nil, fmt.Errorf("the authority in %s ends on %s: take the folder away for a new one, which devices then install anew", folder, pair.Leaf.NotAfter.Format(time.DateOnly))
	}
	return &authority{pair.Leaf, key}, nil
}

func newAuthority(folder string) (*authority, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	name, err := os.Hostname()
	if err != nil {
		name = "this machine"
	}
	template, err := certificate("Gyrophane on " + name)
	if err != nil {
		return nil, err
	}
	template.NotAfter = template.NotBefore.AddDate(authorityYears, 0, 0)
	template.IsCA, template.BasicConstraintsValid, template.MaxPathLenZero = true, true, true
	template.KeyUsage = x509.KeyUsageCertSign
	template.PermittedDNSDomainsCritical = true
	template.PermittedDNSDomains = []string{"local"}
	for _, of := range privateNetworks {
		_, network, err := net.ParseCIDR(of)
		if err != nil {
			return nil, err
		}
		template.PermittedIPRanges = append(template.PermittedIPRanges, network)
	}
	signed, err := x509.CreateCertificate(rand.Reader, template, template, key.Public(), key)
	if err != nil {
		return nil, err
	}
	kept, err := x509.MarshalPKCS8PrivateKey(key)
	if err != nil {
		return nil, err
	}
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("keep the authority: %w", err)
	}
	for _, file := range []struct {
		name, kind string
		content    []byte
	}{{keyIn, "PRIVATE KEY", kept}, {certificateIn, "CERTIFICATE", signed}} {
		text := pem.EncodeToMemory(&pem.Block{Type: file.kind, Bytes: file.content})
		if err := os.WriteFile(filepath.Join(folder, file.name), text, 0o600); err != nil {
			return nil, fmt.Errorf("keep the authority: %w", err)
		}
	}
	made, err := x509.ParseCertificate(signed)
	return &authority{made, key}, err
}

// certificate is what all that are made here have in common.
func certificate(name string) (*x509.Certificate, error) {
	serial, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
	return &x509.Certificate{
		SerialNumber: serial,
		Subject:      pkix.Name{CommonName: name, Organization: []string{"Gyrophane"}},
		NotBefore:    time.Now().Add(-time.Hour),
	}, err
}

// fingerprint is the SHA-256 of the authority's certificate, as devices show it.
func (a *authority) fingerprint() string {
	return strings.ReplaceAll(fmt.Sprintf("% X", sha256.Sum256(a.certificate.Raw)), " ", ":")
}

// issue vouches for a server at an address, under names of the house.
func (a *authority) issue(at netip.Addr, names []string) (*tls.Certificate, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	template, err := certificate(at.String())
	if err != nil {
		return nil, err
	}
	template.NotAfter = template.NotBefore.AddDate(0, 0, leafDays)
	template.KeyUsage = x509.KeyUsageDigitalSignature
	template.ExtKeyUsage = []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}
	template.IPAddresses = []net.IP{at.AsSlice()}
	for _, name := range names {
		if strings.HasSuffix(name, ".local") {
			template.DNSNames = append(template.DNSNames, name)
		}
	}
	signed, err := x509.CreateCertificate(rand.Reader, template, a.certificate, key.Public(), a.key)
	if err != nil {
		return nil, err
	}
	leaf, err := x509.ParseCertificate(signed)
	return &tls.Certificate{Certificate: [][]byte{signed, a.certificate.Raw}, PrivateKey: key, Leaf: leaf}, err
}

// vouched is TLS for a server at an address; its certificate is made anew before it ends.
func (a *authority) vouched(at netip.Addr, names []string) *tls.Config {
	var lock sync.Mutex
	var last *tls.Certificate
	return &tls.Config{MinVersion: tls.VersionTLS12, GetCertificate: func(*tls.ClientHelloInfo) (*tls.Certificate, error) {
		lock.Lock()
		defer lock.Unlock()
		if last != nil && time.Until(last.Leaf.NotAfter) > leafRenewed {
			return last, nil
		}
		fresh, err := a.issue(at, names)
		if err == nil {
			last = fresh
		}
		return fresh, err
	}}
}
