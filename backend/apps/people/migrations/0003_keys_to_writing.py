"""The keys that were used are kept by the writing now; the table went with them."""

from django.db import migrations


class Migration(migrations.Migration):

    dependencies = [("people", "0002_write"), ("writing", "0001_used_keys")]

    operations = [migrations.SeparateDatabaseAndState(state_operations=[migrations.DeleteModel(name="Write")])]
