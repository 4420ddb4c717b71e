package main

import (
	"context"
	"crypto/tls"
	"crypto/x509"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"slices"
	"strconv"
	"strings"
	"sync/atomic"
	"time"

	"github.com/gofiber/fiber/v3"

	"gyrophane/api"
)

// homeServer serves the devices of the house, at the private address that this machine has just now.
type homeServer struct {
	find      func() (netip.Addr, error) // the address of now
	lookAgain time.Duration              // how often it is looked whether it is another
	port      int
	anyPort   bool
	pair      *tls.Certificate // a certificate that was given
	authority *authority       // or who makes them
	log       *slog.Logger
	// server makes the server for what it is reached by.
	server func(names []string, tls bool) *api.Server
	now    atomic.Pointer[api.AtHome]
}

// reached says how devices reach it now.
func (h *homeServer) reached() api.AtHome {
	if now := h.now.Load(); now != nil {
		return *now
	}
	return api.AtHome{}
}

// serving is what listens at one address.
type serving struct {
	at     netip.Addr
	server *api.Server
	shown  *http.Server // the authority's certificate
}

// run serves at home until the context ends, and moves when the address does. It answers at once when it
// cannot begin.
func (h *homeServer) run(ctx context.Context) (wait func(), err error) {
	at, err := h.find()
	if err != nil {
		return nil, err
	}
	one, err := h.serve(at)
	if err != nil {
		return nil, err
	}
	done := make(chan struct{})
	go func() {
		defer close(done)
		for {
			select {
			case <-ctx.Done():
				h.end(one)
				return
			case <-time.After(h.lookAgain):
			}
			at, err := h.find()
			if err != nil || one != nil && at == one.at {
				continue // without any network it is waited for
			}
			h.end(one)
			if one, err = h.serve(at); err != nil {
				h.log.Error("at home", "error", err.Error())
			}
		}
	}()
	return func() { <-done }, nil
}

func (h *homeServer) end(one *serving) {
	h.now.Store(nil)
	if one == nil {
		return
	}
	bye, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	err := one.server.Stop(bye)
	if one.shown != nil {
		err = errors.Join(err, one.shown.Shutdown(bye))
	}
	if err != nil {
		h.log.Warn("at home", "error", err.Error())
	}
}

// serve listens at an address.
func (h *homeServer) serve(at netip.Addr) (*serving, error) {
	l, err := listen(net.JoinHostPort(at.String(), strconv.Itoa(h.port)), h.anyPort)
	if err != nil {
		return nil, err
	}
	one := &serving{at: at}
	names := namesAt(at)
	reached := api.AtHome{TLS: true}
	host := l.Addr().String()
	switch {
	case h.pair != nil:
		own, of := namesOf(h.pair.Leaf, at)
		names = append(names, own...)
		if of != "" {
			_, port, _ := net.SplitHostPort(host)
			host = net.JoinHostPort(of, port)
		}
		l = tls.NewListener(l, given(*h.pair))
	case h.authority != nil:
		if reached.Authority, err = h.show(one, l.Addr().(*net.TCPAddr).Port+1); err != nil {
			return nil, errors.Join(err, l.Close())
		}
		reached.Fingerprint = h.authority.fingerprint()
		l = tls.NewListener(l, h.authority.vouched(at, names))
	default:
		reached.TLS = false
	}
	reached.Address = map[bool]string{true: "https://", false: "http://"}[reached.TLS] + host
	one.server = h.server(names, reached.TLS)
	go func() {
		if err := one.server.App().Listener(l, fiber.ListenConfig{DisableStartupMessage: true}); err != nil {
			h.log.Error("at home", "error", err.Error())
		}
	}()
	h.now.Store(&reached)
	h.log.Info("listening at home", "address", reached.Address)
	return one, nil
}

// namesOf are the hosts a certificate is for, and by which of them devices come where it is not for the
// address itself.
func namesOf(leaf *x509.Certificate, at netip.Addr) (names []string, of string) {
	for _, name := range leaf.DNSNames {
		if !strings.HasPrefix(name, "*") {
			names = append(names, strings.ToLower(name))
		}
	}
	covered := slices.ContainsFunc(leaf.IPAddresses, func(ip net.IP) bool { return ip.Equal(at.AsSlice()) })
	if !covered && len(names) > 0 {
		of = names[0]
	}
	return names, of
}

// show serves the certificate of the authority, and nothing else, over plain HTTP: a device that has not
// installed it yet cannot be asked to come by TLS.
func (h *homeServer) show(one *serving, port int) (address string, err error) {
	l, err := listen(net.JoinHostPort(one.at.String(), strconv.Itoa(port%(1<<16))), true)
	if err != nil {
		return "", err
	}
	one.shown = &http.Server{ReadTimeout: 5 * time.Second, WriteTimeout: 5 * time.Second, MaxHeaderBytes: 8 << 10, Handler: http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.URL.Path != authorityPath {
			http.NotFound(w, r)
			return
		}
		w.Header().Set("Content-Type", "application/x-x509-ca-cert")
		w.Header().Set("Content-Disposition", `attachment; filename="gyrophane.crt"`)
		w.Header().Set("X-Content-Type-Options", "nosniff")
		_, _ = w.Write(h.authority.certificate.Raw)
	})}
	go func() {
		if err := one.shown.Serve(l); !errors.Is(err, http.ErrServerClosed) {
			h.log.Error("the authority's certificate", "error", err.Error())
		}
	}()
	return "http://" + l.Addr().String() + authorityPath, nil
}

const authorityPath = "/gyrophane.crt"

// given is TLS by a certificate that was given.
func given(pair tls.Certificate) *tls.Config {
	return &tls.Config{MinVersion: tls.VersionTLS12, Certificates: []tls.Certificate{pair}}
}

// withTLS is what the flags say of it: a certificate that was given, or an authority of one's own.
func withTLS(o serveOptions) (pair *tls.Certificate, own *authority, err error) {
	others := o.lan != "" || o.public
	switch {
	case o.tlsCert == "" && o.tlsKey == "" && o.tlsSelf == "":
		return nil, nil, nil
	case (o.tlsCert == "") != (o.tlsKey == ""):
		return nil, nil, errors.New("--tls-cert and --tls-key go together: the file of the certificate, and that of its key")
	case o.tlsCert != "" && o.tlsSelf != "":
		return nil, nil, errors.New("--tls-self makes certificates and --tls-cert gives one: choose one of them")
	case o.tlsSelf != "" && o.lan == "":
		return nil, nil, errors.New("--tls-self is for devices at home: use it with --lan")
	case !others:
		return nil, nil, errors.New("TLS is for listening where others are: use it with --lan or --public")
	case o.tlsSelf != "":
		own, err = openAuthority(o.tlsSelf)
		return nil, own, err
	}
	read, err := tls.LoadX509KeyPair(o.tlsCert, o.tlsKey)
	if err != nil {
		return nil, nil, fmt.Errorf("--tls-cert: %w", err)
	}
	return &read, nil, nil
}
