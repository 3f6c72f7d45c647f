// A cloth patch under the practice camera: noise, a weave and uneven light. A few strokes lead to its four inks.

#include <QTest>
#include <cmath>

#include "core/colour/decisions.h"
#include "core/colour/reduce.h"
#include "core/picture/practice_camera.h"
#include "support/artwork.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr int kWidth = 480;
constexpr int kHeight = 360;

/// On cream a navy disc, on it a red kite with two cream eyes and three yellow bows.
picture::Picture patch() {
  const std::vector<colour::Rgb> colours{{242, 234, 214}, {23, 41, 84}, {194, 35, 40}, {245, 186, 33}};
  return artwork(kWidth, kHeight, colours, [](double x, double y) -> std::size_t {
    const auto within = [x, y](double cx, double cy, double r) { return std::hypot(x - cx, y - cy) < r; };
    if (!within(240, 180, 155) || within(215, 140, 14) || within(265, 140, 14)) return 0;
    if (std::abs(x - 240) / 75 + std::abs(y - 140) / 85 < 1) return 2;
    return within(240, 250, 14) || within(262, 285, 14) || within(225, 308, 13) ? 3 : 1;
  });
}

picture::Picture photographed(double lightFall, double fabricDepth, bool evened) {
  picture::PracticeShot shot;
  shot.tiltDegrees = 12;
  shot.panDegrees = -8;
  shot.noiseLevels = 12;
  shot.lightFall = lightFall;
  shot.fabricDepth = fabricDepth;
  const picture::PracticePhoto photo = picture::takePracticePhoto(patch(), shot);
  return picture::prepared(photo.picture, {{picture::Straighten{photo.corners, kWidth / static_cast<double>(kHeight)}},
                                           {picture::EvenLight{}, evened}});
}

/// How many parts each ink has that is there, most first.
std::vector<std::size_t> partsOf(const colour::InkMap& map) {
  std::vector<std::size_t> parts;
  for (const colour::InkShare& share : colour::sharesOf(map)) {
    if (share.parts > 0) parts.push_back(share.parts);
  }
  std::sort(parts.rbegin(), parts.rend());
  return parts;
}

/// A stroke between two places of the patch.
colour::SweepInks stroke(const picture::Picture& cloth, double x1, double y1, double x2, double y2) {
  const auto place = [&cloth](double x, double y) {
    return colour::SweepInks::Place{static_cast<int>(x / kWidth * cloth.width()),
                                    static_cast<int>(y / kHeight * cloth.height())};
  };
  return {{place(x1, y1), place(x2, y2)}, 4, false};
}

}  // namespace

class TestFabric : public QObject {
  Q_OBJECT

 private slots:
  void aFewSweepsLeadToFourInks_data() {
    QTest::addColumn<double>("lightFall");
    QTest::addColumn<double>("fabricDepth");
    QTest::addColumn<bool>("evened");
    QTest::newRow("as it comes") << 0.3 << 0.2 << false;
    QTest::newRow("uneven light") << 0.6 << 0.2 << false;
    QTest::newRow("coarse cloth, uneven light") << 0.6 << 0.35 << false;
    QTest::newRow("very coarse cloth, light evened") << 0.6 << 0.5 << true;
  }
  void aFewSweepsLeadToFourInks() {
    QFETCH(double, lightFall);
    QFETCH(double, fabricDepth);
    QFETCH(bool, evened);
    const picture::Picture cloth = photographed(lightFall, fabricDepth, evened);
    const colour::InkMap map = colour::reduced(cloth, std::nullopt);
    // Only the ground falls apart, by the light: strokes along its edges, as many as it takes and at most six.
    const std::vector<colour::SweepInks> strokes{stroke(cloth, 10, 10, 470, 10), stroke(cloth, 10, 350, 470, 350),
                                                 stroke(cloth, 8, 8, 8, 352),    stroke(cloth, 472, 8, 472, 352),
                                                 stroke(cloth, 20, 20, 60, 60),  stroke(cloth, 420, 60, 460, 20)};
    std::vector<colour::InkStep> steps;
    colour::InkMap now = map;
    while (partsOf(now).size() > 4 && steps.size() < strokes.size()) {
      steps.push_back(colour::stepFor(strokes[steps.size()]));
      now = colour::decided(map, cloth, steps);
    }
    qInfo("%zu inks at first, %zu sweeps", map.inks.size(), steps.size());
    // The ground and two eyes; three bows; the disc; the kite.
    QVERIFY(partsOf(now) == (std::vector<std::size_t>{3, 3, 1, 1}));
  }
};

RIM_TEST(TestFabric)
#include "tst_fabric.moc"
