"""What makes and checks the data, the documents and the templates; for developers."""
