"""The terms of the trade, by American and by ISO usage."""
