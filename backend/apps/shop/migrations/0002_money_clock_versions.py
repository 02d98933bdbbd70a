from django.db import migrations, models

import apps.shop.models


class Migration(migrations.Migration):

    dependencies = [("shop", "0001_initial")]

    operations = [
        migrations.AddField("shop", "currency", models.CharField(default="EUR", max_length=3)),
        migrations.AddField("shop", "time_zone", models.CharField(default="UTC", max_length=40, validators=[apps.shop.models.check_zone])),
        migrations.AddField("shop", "shelf_version", models.PositiveBigIntegerField(default=0)),
        migrations.AddField("shop", "cleared_on", models.DateField(null=True)),
    ]
