"""The words of the trade that every room uses: how open a unit is, its mains, what is known of a part, who says so."""
