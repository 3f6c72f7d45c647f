// Combined and offset areas as Shapely (GEOS) works them out.

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>
#include <numbers>
#include <random>

#include "core/geometry/flatten.h"
#include "core/refine/combine/areas.h"
#include "core/refine/combine/offset.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

QJsonArray ringsOf(const Drawing& drawing, double chordMm) {
  QJsonArray rings;
  for (const Outline& outline : drawing.outlines) {
    QJsonArray ring;
    for (const Point p : flatten(outline.path(), chordMm)) ring.append(QJsonArray{p.x, p.y});
    rings.append(ring);
  }
  return rings;
}

/// Outlines of arcs and lines, some with bays, that overlap or not.
Drawing shapes(std::mt19937& random) {
  std::uniform_real_distribution<double> place(0, 60);
  std::uniform_real_distribution<double> radius(4, 12);
  std::vector<Path> paths;
  for (int i = 0; i < 4; ++i) {
    const Point at{place(random), place(random)};
    const double r = radius(random);
    if (i % 2 == 0) paths.push_back(circlePath(at, r));
    if (i % 2 == 1)
      paths.push_back(
          polygonThrough({at, at + Point{r, 1}, at + Point{r + 2, r}, at + Point{r / 2, r / 3}, at + Point{0, r}}));
  }
  return refine::united(makeDrawing(std::move(paths)));
}

}  // namespace

class TestRefineOutside : public QObject {
  Q_OBJECT

 private slots:
  void areasAreWhatGeosMakesOfThem() {
    QJsonArray jobs;
    const auto add = [&jobs](const QString& rule, const Drawing& a, const Drawing& b, double mm, const Drawing& ours) {
      // GEOS simplifies what it offsets by a hundredth of the distance (BufferParameters, simplify factor), and goes
      // astray where chords are far shorter than that.
      const double chord = rule == "offset" ? 1e-4 : 1e-5;
      const QJsonArray ringsOfB = ringsOf(b, chord);
      jobs.append(QJsonObject{
          {"rule", rule}, {"a", ringsOf(a, chord)}, {"b", ringsOfB}, {"mm", mm}, {"ours", ringsOf(ours, chord)}});
    };
    for (unsigned seed = 1; seed <= 12; ++seed) {
      std::mt19937 random(seed);
      const Drawing a = shapes(random);
      const Drawing b = shapes(random);
      add("unite", a, b, 0, refine::combined(a, b, refine::AreaRule::Unite));
      add("subtract", a, b, 0, refine::combined(a, b, refine::AreaRule::Subtract));
      add("intersect", a, b, 0, refine::combined(a, b, refine::AreaRule::Intersect));
      add("exclude", a, b, 0, refine::combined(a, b, refine::AreaRule::Exclude));
      for (const double mm : {0.7, 3.0, -0.7}) add("offset", a, {}, mm, refine::offset(a, mm, refine::Joins::Round));
    }
    const QTemporaryDir folder;
    QFile file(folder.filePath("jobs.json"));
    QVERIFY(file.open(QIODevice::WriteOnly));
    file.write(QJsonDocument(jobs).toJson());
    file.close();
    QProcess python;
    python.start("/usr/bin/python3", {SOURCE_FOLDER "/tests/outside/refine_outside.py", file.fileName()});
    QVERIFY(python.waitForFinished(120'000));
    const QJsonArray differences = QJsonDocument::fromJson(python.readAllStandardOutput()).array();
    QVERIFY2(differences.size() == jobs.size(), python.readAllStandardError().constData());
    for (int i = 0; i < differences.size(); ++i) {
      const QString what =
          QString("%1 %2: %3").arg(i).arg(jobs[i].toObject()["rule"].toString()).arg(differences[i].toDouble());
      QVERIFY2(differences[i].toDouble() < 1e-4, qPrintable(what));
    }
  }
};

RIM_TEST(TestRefineOutside)
#include "tst_refine_outside.moc"
