// Package options keeps what the command line says; what is handed in is another one of that kind.
package options

type SendOptions struct {
	Name   string
	Secret string
}

type sendWrapper struct {
	SendOptions
	fromFile string
}

var sendOptions = sendWrapper{}  // entity: global-variable sendOptions eager language

func Send(name string) error {
	if sendOptions.fromFile != "" {
		sendOptions.Name = name // near: thread.unguarded-state
		sendOptions.Secret = name
	}
	return deliver(sendOptions.SendOptions)
}

func deliver(options SendOptions) error {
	println(options.Name, options.Secret)
	return nil
}

func Handle(names []string) {
	for _, name := range names {
		options := SendOptions{Name: name}
		go func() {
			_ = deliver(options)
		}()
	}
}
