"""The week as it is worked out: what comes next on the bench, how likely each promise is, and what a new one would be worth at the counter."""

import re

import pytest
from apps.day.services import draw_unseen, refresh
from apps.jobs.models import Job
from django.utils import timezone
from playwright.sync_api import expect

from .conftest import axe, sign_in


@pytest.fixture
def worked_out(page, shop, monkeypatch):
    monkeypatch.setattr("apps.day.services.WAYS", 6)
    refresh(timezone.now())
    draw_unseen()
    sign_in(page, shop, "counter")
    return page


def test_a_promise_is_given_with_its_chance_and_stands_in_the_week(worked_out):
    page = worked_out
    page.get_by_role("link", name="The week").click()
    expect(page.get_by_role("heading", name="Next on the bench")).to_be_visible()
    for tag in Job.objects.exclude(stage="closed").values_list("tag", flat=True):
        expect(page.get_by_role("link", name=re.compile(f"^{tag}")).last).to_be_visible()
    assert axe(page) == []
    page.goto(page.url.replace("/day/week", "/take-in"))
    page.get_by_text("VM-S41").first.click()
    days = page.get_by_label("By when it would be done").get_by_role("radio")
    days.first.wait_for()
    days.nth(days.count() - 1).click()
    expect(days.nth(days.count() - 1)).to_be_checked()
    expect(page.get_by_text("no promise yet")).to_have_count(0)
