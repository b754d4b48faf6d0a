"""Flask: thin routes that parse, call and answer; serves the built front end."""
