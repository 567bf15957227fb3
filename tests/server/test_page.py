"""The page's own answer."""

from django.contrib.auth import get_user_model
from django.test import TestCase

from server.workshops.actions import create_workshop


class FirstPage(TestCase):
    def test_tells_the_browser_what_will_be_asked_for(self) -> None:
        self.assertNotIn("workshops", self.client.get("/").headers["Link"])
        somebody = get_user_model().objects.create_user("somebody")
        self.client.force_login(somebody)
        self.assertEqual(self.client.get("/").headers["Link"].count("rel=preload"), 2)
        workshop = create_workshop(somebody, "Shed")
        here = self.client.get("/").headers["Link"]
        self.assertEqual(here.count("rel=preload"), 5)
        self.assertIn(f"</api/workshops/{workshop.pk}/cards/>", here)
        self.assertIn("</api/workshops/>", here)
        self.assertNotIn("workshops", self.client.get("/practice").headers["Link"])

    def test_each_answer_names_the_page_that_is_served(self) -> None:
        said = self.client.get("/api/vocabulary/").headers["Page-Version"]
        self.assertRegex(said, r"^index-[\w-]+$")
        self.assertIn(f"/{said}.js", self.client.get("/").content.decode())
        self.assertNotIn("Page-Version", self.client.get("/").headers)
