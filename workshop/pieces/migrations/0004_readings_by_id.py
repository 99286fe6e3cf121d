"""Readings go by the ids of what they were taken on; those that went by numbers are renamed."""

from typing import Any

from django.db import migrations, models

from splay.piece.upgrade import proof_of_1


def rename(apps: Any, schema_editor: Any) -> None:
    """Each reading, and all that was ever said of it, by the piece as it stands now."""
    rows = apps.get_model("pieces", "PieceRow")
    revisions = apps.get_model("pieces", "Revision")
    for row in rows.objects.all():
        last = revisions.objects.filter(piece=row, number=row.latest).first()
        if last is None or not isinstance(last.document, dict) or last.document.get("version", 1) != 1:
            continue
        for model in ("ReadingRow", "ReadingEvent"):
            for one in apps.get_model("pieces", model).objects.filter(piece=row):
                one.proof = proof_of_1(one.proof, last.document)
                if model == "ReadingRow":
                    one.kind = one.proof.partition(".")[0]
                one.save(update_fields=["proof"] + (["kind"] if model == "ReadingRow" else []))


class Migration(migrations.Migration):
    dependencies = [("pieces", "0003_photos")]
    operations = [
        migrations.AlterField("readingrow", "proof", models.CharField(max_length=80)),
        migrations.AlterField("readingevent", "proof", models.CharField(max_length=80)),
        migrations.AddField("readingrow", "kind", models.CharField(max_length=20, default="")),
        migrations.RunPython(rename, migrations.RunPython.noop),
        migrations.AlterField("readingrow", "kind", models.CharField(max_length=20)),
    ]
