// Pictures reduced to inks, and decisions about them.

#include <QTest>
#include <random>

#include "core/colour/decisions.h"
#include "core/colour/reduce.h"
#include "core/error.h"
#include "core/picture/load.h"
#include "support/artwork.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

const colour::Rgb kWhite{255, 255, 255};
const colour::Rgb kBlack{0, 0, 0};
const colour::Rgb kGrey{128, 128, 128};
const colour::Rgb kNavy{23, 41, 84};
const colour::Rgb kRed{194, 35, 40};
const colour::Rgb kYellow{245, 186, 33};

/// Three upright bars on white: black, grey, black.
picture::Picture bars() {
  return artwork(120, 60, {kWhite, kBlack, kGrey}, [](double x, double y) -> std::size_t {
    if (y < 10.3 || y > 50.6) return 0;
    if (x > 10.4 && x < 40.7) return 1;
    if (x > 50.2 && x < 80.5) return 2;
    return x > 90.1 && x < 110.8 ? 1 : 0;
  });
}

std::size_t inkAt(const colour::InkMap& map, int x, int y) { return map.labels->at<std::uint8_t>(y, x); }

std::size_t inkLike(const colour::InkMap& map, colour::Rgb colour) {
  std::size_t best = 0;
  for (std::size_t i = 0; i < map.inks.size(); ++i) {
    if (colour::differenceOf(colour::labFrom(map.inks[i].colour), colour::labFrom(colour)) <
        colour::differenceOf(colour::labFrom(map.inks[best].colour), colour::labFrom(colour)))
      best = i;
  }
  return best;
}

std::vector<std::size_t> partsOf(const colour::InkMap& map) {
  std::vector<std::size_t> parts;
  for (const colour::InkShare& share : colour::sharesOf(map)) parts.push_back(share.parts);
  return parts;
}

picture::Picture noisy(const picture::Picture& picture, double deviation) {
  std::mt19937 random(7);
  std::normal_distribution<double> off(0, deviation);
  cv::Mat bgr = picture.bgr->clone();
  for (int i = 0; i < static_cast<int>(bgr.total()); ++i) {
    for (int k = 0; k < 3; ++k)
      bgr.at<cv::Vec3b>(i)[k] = cv::saturate_cast<std::uint8_t>(bgr.at<cv::Vec3b>(i)[k] + off(random));
  }
  return picture::withPixels(picture, bgr);
}

colour::InkMap after(const colour::InkMap& map, const picture::Picture& picture,
                     std::vector<colour::InkDecision> decisions) {
  std::vector<colour::InkStep> steps;
  for (colour::InkDecision& d : decisions) steps.push_back(colour::stepFor(std::move(d)));
  return colour::decided(map, picture, steps);
}

}  // namespace

class TestInks : public QObject {
  Q_OBJECT

 private slots:
  void aGreyInkLeavesNoHairBetweenBlackAndWhite() {
    const colour::InkMap map = colour::reduced(bars(), std::nullopt);
    QCOMPARE(int(map.inks.size()), 3);
    const auto shares = colour::sharesOf(map);
    QCOMPARE(int(shares[inkLike(map, kGrey)].parts), 1);
    QCOMPARE(int(shares[inkLike(map, kBlack)].parts), 2);
    QCOMPARE(int(shares[inkLike(map, kWhite)].parts), 1);
    QVERIFY(std::abs(shares[inkLike(map, kGrey)].share * 7200 - 30.3 * 40.3) < 30);
    QVERIFY(map.inks[inkLike(map, kWhite)].role == colour::InkRole::Background);
    QVERIFY(map.inks[inkLike(map, kBlack)].role == colour::InkRole::Keep);
  }

  /// A green and a red whose L* differ by less than 1: grey levels cannot part them.
  void equalLightnessIsParted() {
    const colour::Rgb red{200, 60, 60};
    const colour::Rgb green{64, 124, 64};
    QVERIFY(std::abs(colour::labFrom(red).l - colour::labFrom(green).l) < 1);
    const picture::Picture picture = artwork(80, 60, {red, green}, [](double x, double y) -> std::size_t {
      return std::hypot(x - 40, y - 30) < 18.4 ? 1 : 0;
    });
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    QCOMPARE(int(map.inks.size()), 2);
    int wrong = 0;
    for (int y = 0; y < 60; ++y) {
      for (int x = 0; x < 80; ++x) {
        const double off = std::hypot(x + 0.5 - 40, y + 0.5 - 30) - 18.4;
        if (std::abs(off) > 0.8) wrong += inkAt(map, x, y) == inkLike(map, off < 0 ? green : red) ? 0 : 1;
      }
    }
    QCOMPARE(wrong, 0);
  }

  void aStripHardlyThreePixelsWideIsAnInkOfItsOwn() {
    // Grey within black, which as a mixture could be black and white; and a small area of a JPEG beside much paper.
    const std::vector<colour::Rgb> colours{{255, 255, 255}, {0, 0, 0}, {155, 155, 154}, {234, 90, 71}, {210, 47, 39}};
    const picture::Picture strip = artwork(120, 120, colours, [](double x, double y) -> std::size_t {
      if (std::abs(x - 60) > 40 || std::abs(y - 60) > 40) return 0;
      const double across = (x - 60) * 0.8 + (y - 60) * 0.6;
      const double along = (y - 60) * 0.8 - (x - 60) * 0.6;
      return std::abs(across) < 1.7 && std::abs(along) < 22 ? 2 : 1;
    });
    QCOMPARE(int(colour::reduced(strip, std::nullopt).inks.size()), 3);
    const picture::Picture shade = artwork(160, 160, colours, [](double x, double y) -> std::size_t {
      if (std::hypot(x - 80, y - 80) > 20) return 0;
      return std::hypot(x - 84, y - 78) < 8 ? 4 : 3;
    });
    QCOMPARE(int(colour::reduced(asJpeg(shade, 70), std::nullopt).inks.size()), 3);
  }

  void theDemoBadgeHasSixInks_data() {
    QTest::addColumn<QString>("file");
    QTest::newRow("drawn") << "badge.png";
    QTest::newRow("JPEG 55") << "badge.jpg";
  }
  void theDemoBadgeHasSixInks() {
    QFETCH(QString, file);
    const picture::Picture badge =
        picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/" + file.toStdString()));
    const colour::InkMap map = colour::reduced(badge, std::nullopt);
    QCOMPARE(int(map.inks.size()), 6);
    // White outside only; two yellow and four red parts (two sails, two discs); one sky.
    QCOMPARE(int(partsOf(map)[inkLike(map, kWhite)]), 1);
    QCOMPARE(int(partsOf(map)[inkLike(map, kYellow)]), 2);
    QCOMPARE(int(partsOf(map)[inkLike(map, kRed)]), 4);
    QCOMPARE(int(partsOf(map)[inkLike(map, {140, 199, 230})]), 1);
  }

  /// Cream tiles at all angles on navy; white and light blue, as which their corners come out of a JPEG, lie elsewhere.
  void cornersInAJpegLeaveNoCrumbs() {
    const picture::Picture drawn =
        artwork(640, 400, {kNavy, {255, 244, 220}, kWhite, {140, 199, 230}}, [](double x, double y) -> std::size_t {
          if (x > 560) return y < 200 ? 2 : 3;
          const double column = std::floor(x / 40);
          const double row = std::floor(y / 40);
          const double angle = 0.07 * (column + 14 * row);
          const double u = x - 40 * column - 20;
          const double v = y - 40 * row - 20;
          const double across = std::abs(u * std::cos(angle) + v * std::sin(angle));
          return std::max(across, std::abs(v * std::cos(angle) - u * std::sin(angle))) < 12.3 ? 1 : 0;
        });
    for (const int quality : {90, 85, 75, 60}) {
      const colour::InkMap map = colour::reduced(asJpeg(drawn, quality), std::nullopt);
      QCOMPARE(map.inks.size(), 4U);
      const auto shares = colour::sharesOf(map);
      QCOMPARE(int(shares[inkLike(map, kNavy)].parts), 1);
      QCOMPARE(int(shares[inkLike(map, {255, 244, 220})].parts), 140);
      QCOMPARE(int(shares[inkLike(map, kWhite)].parts), 1);
      QCOMPARE(int(shares[inkLike(map, {140, 199, 230})].parts), 1);
    }
  }

  void thinStrokesHaveAnInk() {
    const picture::Picture picture = artwork(90, 60, {kWhite, kRed, kNavy}, [](double x, double y) -> std::size_t {
      if (x > 20.3 && x < 50.3 && y > 10.2 && y < 48.9) return 2;
      return x > 65.2 && x < 67.4 && y > 8 && y < 52 ? 1 : 0;
    });
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    QCOMPARE(int(map.inks.size()), 3);
    QCOMPARE(inkAt(map, 66, 30), inkLike(map, kRed));
    QVERIFY(colour::differenceOf(colour::labFrom(map.inks[inkLike(map, kRed)].colour), colour::labFrom(kRed)) < 12);
  }

  /// Ochre lines beside yellow are its like, and must not hide that there are red ones, too.
  void aThinInkIsFoundBesideOneThatIsLikeAnInk() {
    const colour::Rgb yellow{255, 224, 0};
    const colour::Rgb ochre{226, 190, 9};
    const picture::Picture picture =
        artwork(120, 60, {kWhite, yellow, ochre, kRed}, [](double x, double y) -> std::size_t {
          if (x < 40.3) return 1;
          if (y > 8 && y < 52 && std::fmod(x - 45, 6.0) < 1.7 && x > 45 && x < 95) return 2;
          return x > 101.2 && x < 103.1 && y > 8 && y < 52 ? 3 : 0;
        });
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    QVERIFY(colour::differenceOf(colour::labFrom(map.inks[inkLike(map, kRed)].colour), colour::labFrom(kRed)) < 12);
    QCOMPARE(inkAt(map, 102, 30), inkLike(map, kRed));
  }

  /// A pale grey of two hundred pixels on white is an ink in flat artwork; with noise and as a JPEG it is dirt.
  void aSmallPaleAreaOfFlatArtworkIsAnInk() {
    const colour::Rgb pale{208, 207, 206};
    const picture::Picture flat = artwork(200, 160, {kWhite, kNavy, pale}, [](double x, double y) -> std::size_t {
      if (x > 20.4 && x < 90.4 && y > 20.3 && y < 120.6) return 1;
      return x > 120.5 && x < 136.5 && y > 60.5 && y < 72.5 ? 2 : 0;
    });
    const colour::InkMap map = colour::reduced(flat, std::nullopt);
    QCOMPARE(map.inks.size(), 3U);
    QCOMPARE(inkAt(map, 128, 66), inkLike(map, pale));
    QVERIFY(colour::reduced(noisy(flat, 6), std::nullopt).inks.size() <= 3U);
  }

  /// Between dark lines a JPEG leaves little of a pale strip even: so small a pale area is an ink, bled colour is none.
  void aPaleStripInAJpegIsAnInk() {
    const colour::Rgb pale{208, 207, 206};
    const colour::Rgb brown{106, 70, 47};
    const picture::Picture drawn =
        artwork(160, 160, {kWhite, kBlack, pale, brown}, [](double x, double y) -> std::size_t {
          if (std::hypot(x - 60.3, y - 50.4) < 36.2) return 3;
          const double blade = std::max(std::abs(x - 80.5) - 40, std::abs(y - 120.4) - 2.3);
          if (blade < 0) return 2;
          return blade < 4.2 ? 1 : 0;
        });
    for (const int quality : {50, 70, 90}) {
      const colour::InkMap map = colour::reduced(asJpeg(drawn, quality), std::nullopt);
      QCOMPARE(map.inks.size(), 4U);
      QCOMPARE(inkAt(map, 80, 120), inkLike(map, pale));
    }
  }

  void noiseMakesNoIslands() {
    const picture::Picture picture = noisy(bars(), 12);
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    QCOMPARE(int(map.inks.size()), 3);
    QCOMPARE(int(partsOf(map)[inkLike(map, kBlack)]), 2);
    QCOMPARE(int(partsOf(map)[inkLike(map, kGrey)]), 1);
    QCOMPARE(int(partsOf(map)[inkLike(map, kWhite)]), 1);
  }

  void asManyAsAskedFor_data() {
    QTest::addColumn<int>("count");
    for (const int count : {2, 3, 4, 7}) QTest::addRow("%d", count) << count;
  }
  void asManyAsAskedFor() {
    QFETCH(int, count);
    const picture::Picture badge = picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/badge.jpg"));
    const colour::InkMap map = colour::reduced(badge, count);
    QCOMPARE(int(map.inks.size()), count);
  }

  void theSameEveryTime() {
    const picture::Picture picture = noisy(bars(), 6);
    const colour::InkMap one = colour::reduced(picture, std::nullopt);
    const colour::InkMap other = colour::reduced(picture, std::nullopt);
    QVERIFY(one.inks == other.inks);
    QCOMPARE(cv::countNonZero(*one.labels != *other.labels), 0);
  }

  void oneColourIsOneInk() {
    const colour::InkMap map =
        colour::reduced(artwork(20, 20, {kRed}, [](double, double) -> std::size_t { return 0; }), std::nullopt);
    QCOMPARE(int(map.inks.size()), 1);
    QVERIFY(map.inks[0].role == colour::InkRole::Background);
  }

  void flatColoursWantSeveralInks() {
    QVERIFY(colour::wantsSeveralInks(picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/badge.jpg"))));
    QVERIFY(colour::wantsSeveralInks(picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/badge.png"))));
    for (const char* file : {"weather-vane.png", "window-card.png", "window-card-photo.jpg"})
      QVERIFY(!colour::wantsSeveralInks(picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/") / file)));
    QVERIFY(!colour::wantsSeveralInks(bars()));
  }

  void mergingMovesAllPixels() {
    const picture::Picture picture = bars();
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    const std::size_t grey = inkLike(map, kGrey);
    const std::size_t black = inkLike(map, kBlack);
    const auto before = colour::sharesOf(map);
    const colour::InkMap merged = after(map, picture, {colour::MergeInks{grey, black}});
    const auto shares = colour::sharesOf(merged);
    QCOMPARE(shares[grey].pixels, std::size_t{0});
    QCOMPARE(shares[black].pixels, before[black].pixels + before[grey].pixels);
    // Switched off it is as if it had never been.
    std::vector<colour::InkStep> off{colour::stepFor(colour::MergeInks{grey, black})};
    off[0].on = false;
    QCOMPARE(cv::countNonZero(*colour::decided(map, picture, off).labels != *map.labels), 0);
    // Inks that are not there change nothing.
    QCOMPARE(cv::countNonZero(*after(map, picture,
                                     {colour::MergeInks{40, black}, colour::SetInkRole{40, colour::InkRole::Keep},
                                      colour::SplitInk{40}, colour::RenameInk{40, "x"}, colour::RecolourInk{40, kRed}})
                                   .labels != *map.labels),
             0);
  }

  void sweepsJoinWhatTheyCross() {
    const picture::Picture picture = bars();
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    const std::size_t grey = inkLike(map, kGrey);
    const std::size_t black = inkLike(map, kBlack);
    // Mostly over the grey bar, a little over the first black one.
    colour::SweepInks sweep{{{38, 30}, {79, 30}}, 1, false};
    // White lies between: it would join as well, so the sweep stays within the bars' rows but crosses the gap.
    colour::InkMap swept = after(map, picture, {sweep});
    QCOMPARE(inkAt(swept, 20, 30), grey);
    QCOMPARE(inkAt(swept, 100, 30), grey);  // the other black bar too: everywhere
    QCOMPARE(inkAt(swept, 2, 2), grey);
    sweep.connected = true;
    swept = after(map, picture, {sweep});
    QCOMPARE(inkAt(swept, 20, 30), grey);
    QCOMPARE(inkAt(swept, 100, 30), black);  // this one was not touched
    // Beside the picture nothing happens.
    QCOMPARE(cv::countNonZero(*after(map, picture, {colour::SweepInks{{{-50, -50}, {-20, -9}}, 3, false}}).labels !=
                              *map.labels),
             0);
  }

  void splittingPartsTwoColours() {
    const colour::Rgb orange{240, 120, 30};
    const picture::Picture picture = artwork(90, 40, {kWhite, kRed, orange}, [](double x, double y) -> std::size_t {
      if (y < 8.5 || y > 31.5 || x < 8.5 || x > 81.5) return 0;
      return x < 55 ? 1 : 2;
    });
    const colour::InkMap two = colour::reduced(picture, 2);
    const std::size_t both = inkLike(two, kRed);
    QCOMPARE(inkAt(two, 20, 20), inkAt(two, 70, 20));
    const colour::InkMap split = after(two, picture, {colour::SplitInk{both}});
    QCOMPARE(int(split.inks.size()), 3);
    QCOMPARE(inkAt(split, 20, 20), both);
    QCOMPARE(inkAt(split, 70, 20), std::size_t{2});
    QVERIFY(colour::differenceOf(colour::labFrom(split.inks[2].colour), colour::labFrom(orange)) < 3);
    QVERIFY(colour::differenceOf(colour::labFrom(split.inks[both].colour), colour::labFrom(kRed)) < 3);
  }

  void namesColoursAndRoles() {
    const picture::Picture picture = bars();
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    const std::size_t grey = inkLike(map, kGrey);
    const colour::InkMap changed = after(map, picture,
                                         {colour::RenameInk{grey, "felt"}, colour::RecolourInk{grey, kYellow},
                                          colour::SetInkRole{grey, colour::InkRole::Dissolve}});
    QCOMPARE(colour::nameOf(changed.inks[grey]), std::string("felt"));
    QVERIFY(changed.inks[grey].colour == kYellow);
    // Dissolved, its area goes to what is around it: white.
    const colour::InkMap gone = colour::dissolved(changed);
    QCOMPARE(colour::sharesOf(gone)[grey].pixels, std::size_t{0});
    QCOMPARE(inkAt(gone, 65, 30), inkLike(map, kWhite));
    // When everything is to be dissolved there is nothing to give it to.
    std::vector<colour::InkDecision> all;
    for (std::size_t i = 0; i < map.inks.size(); ++i)
      all.emplace_back(colour::SetInkRole{i, colour::InkRole::Dissolve});
    const colour::InkMap whole = colour::dissolved(after(map, picture, all));
    QCOMPARE(cv::countNonZero(*whole.labels != *map.labels), 0);
  }

  void suggestionsNameTheLikest() {
    const picture::Picture badge = picture::loadPicture(std::filesystem::path(SOURCE_FOLDER "/demo/badge.jpg"));
    const colour::InkMap map = colour::reduced(badge, std::nullopt);
    const auto pairs = colour::likeInks(map.inks, colour::sharesOf(map));
    QCOMPARE(int(pairs.size()), 1);
    QCOMPARE(pairs[0].one, inkLike(map, kWhite));
    QCOMPARE(pairs[0].other, inkLike(map, {250, 237, 204}));
  }

  void aChartOfAHundredSwatchesHasAsManyInksAsThereMayBe() {
    // Ten by ten colours that are all apart: the likest become one until no more than kMostInks are left.
    cv::Mat chart(400, 400, CV_8UC3);
    for (int i = 0; i < 100; ++i) {
      const cv::Scalar colour((i % 10) * 28, (i / 10) * 28, (i * 37) % 256);
      chart(cv::Rect((i % 10) * 40, (i / 10) * 40, 40, 40)) = colour;
    }
    const colour::InkMap map = colour::reduced(picture::makePicture(chart, 0, "chart"), std::nullopt);
    QVERIFY2(map.inks.size() > 40 && map.inks.size() <= colour::kMostInks,
             qPrintable(QString::number(map.inks.size())));
    double most = 0;
    cv::minMaxLoc(*map.labels, nullptr, &most);
    QVERIFY(most < static_cast<double>(map.inks.size()));
  }

  void itCanBeStopped() {
    std::stop_source source;
    source.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, colour::reduced(bars(), std::nullopt, source.get_token()));
  }
};

RIM_TEST(TestInks)
#include "tst_inks.moc"
