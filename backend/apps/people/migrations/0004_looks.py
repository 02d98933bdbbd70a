from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [("people", "0003_keys_to_writing")]

    operations = [migrations.AddField("user", "looks", models.PositiveIntegerField(default=0))]
