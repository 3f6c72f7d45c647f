// Random drawings in every form that is written, as strangers' readers understand them: ezdxf, GDAL/OGR, svgelements,
// librsvg, poppler.

#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QTemporaryDir>
#include <QTest>
#include <cmath>
#include <numbers>
#include <random>

#include "core/geometry/circle.h"
#include "core/geometry/elliptic_arc.h"
#include "core/io/deliver.h"
#include "core/io/dxf/dxf_layers.h"
#include "support/test_list.h"

using namespace rim;

namespace {

constexpr double kPxPerMm = 8;
constexpr double kToleranceMm = 0.002;

/// Shapes of every kind, each in a cell of its own, so that none crosses another.
class Shapes {
 public:
  explicit Shapes(unsigned seed) : random_(seed) {}

  /// `open`: some are not closed.
  Drawing drawing(bool open) {
    constexpr double kCell = 30;
    std::vector<Path> paths;
    std::vector<std::size_t> layerOf;
    std::vector<Layer> layers{{"Blau #1", 20, 60, 160}, {"rouge é", 200, 10, 10}, {"日 <x>", 0, 120, 0}};
    for (int row = 0; row < 3; ++row) {
      for (int column = 0; column < 4; ++column) {
        const Point middle{(column + 0.5) * kCell + 2, (row + 0.5) * kCell + 3};
        const auto layer = static_cast<std::size_t>(whole(0, 2));
        for (Path& path : shape(middle, open)) {
          paths.push_back(std::move(path));
          layerOf.push_back(layer);
        }
      }
    }
    Drawing all = makeDrawing(std::move(paths), layers, layerOf);
    all.pageWidth = 4 * kCell + 5;
    all.pageHeight = 3 * kCell + 6;
    return all;
  }

 private:
  int whole(int low, int high) { return std::uniform_int_distribution(low, high)(random_); }
  double real(double low, double high) { return std::uniform_real_distribution(low, high)(random_); }

  std::vector<Path> shape(Point middle, bool open) {
    switch (whole(0, open ? 5 : 4)) {
      case 0:
        return {circlePathOf(middle, real(0.5, 13), 1)};
      case 1: {
        const double turn = real(0, 3);
        const Point along{std::cos(turn), std::sin(turn)};
        return {pathOf(
            EllipticArc{middle, along * real(8, 13), Point{-along.y, along.x} * real(1, 7), 0, 2 * std::numbers::pi},
            1e-4)};
      }
      case 2:
        return {star(middle, 13, 0), star(middle, 4, 0)};
      case 3:
        return {star(middle, 13, 1)};
      case 4:
        return {star(middle, 13, 2), circlePathOf(middle, 2, -1)};
      default: {
        Path path = star(middle, 13, whole(0, 1));
        path.closed = false;
        path.segments.pop_back();
        return {path};
      }
    }
  }

  /// Round a middle: corners at random radii, with lines, arcs or curves between.
  Path star(Point middle, double largest, int kind) {
    const int count = whole(3, 9);
    std::vector<Point> corners;
    for (int k = 0; k < count; ++k) {
      const double angle = 2 * std::numbers::pi * k / count;
      corners.push_back(middle + Point{std::cos(angle), std::sin(angle)} * real(0.7 * largest, 0.9 * largest));
    }
    Path path{corners[0], {}, true};
    for (int k = 0; k < count; ++k) {
      const Point from = corners[static_cast<std::size_t>(k)];
      const Point to = corners[static_cast<std::size_t>((k + 1) % count)];
      const Point across = Point{to.y - from.y, from.x - to.x} * real(-0.1, 0.1);
      path.segments.push_back(kind == 0 ? Segment::line(to)
                              : kind == 1
                                  ? Segment::arc(to, real(-0.2, 0.2))
                                  : Segment::cubic(lerp(from, to, 0.3) + across, lerp(from, to, 0.7) + across, to));
    }
    return path;
  }

  std::mt19937 random_;
};

/// What a file should hold.
QJsonObject meantBy(const Drawing& drawing, double unitMm, bool dxf) {
  int closed = 0;
  for (const Outline& outline : drawing.outlines) closed += outline.path().closed ? 1 : 0;
  const Box box = boxOf(pathsOf(drawing));
  QJsonArray layers;
  std::set<std::size_t> used;
  for (const Outline& outline : drawing.outlines) used.insert(outline.layer);
  const auto names = io::dxf::dxfLayersOf(drawing, false);
  for (const std::size_t layer : used) layers.append(QString::fromStdString(names[layer].name));
  return {{"outlines", static_cast<int>(drawing.outlines.size())},
          {"closed", closed},
          {"box", QJsonArray{box.low.x, box.low.y, box.high.x, box.high.y}},
          {"page", QJsonArray{drawing.pageWidth, drawing.pageHeight}},
          {"layers", dxf ? layers : QJsonArray{}},
          {"unit", unitMm}};
}

struct Form {
  const char* ending;
  job::FileFormat format;
  std::optional<CurveForm> curves;
  Unit unit = Unit::Millimetre;
  job::SvgElement element = job::SvgElement::Layer;
};

const std::vector<Form> kForms{
    {"-arcs.dxf", job::FileFormat::Dxf2000, CurveForm::Arcs},
    {"-splines.dxf", job::FileFormat::Dxf2000, CurveForm::Beziers},
    {"-lines.dxf", job::FileFormat::Dxf2000, CurveForm::Lines, Unit::Inch},
    {"-r12.dxf", job::FileFormat::DxfR12, CurveForm::Arcs},
    {"-r12-lines.dxf", job::FileFormat::DxfR12, CurveForm::Lines, Unit::Inch},
    {"-curves.svg", job::FileFormat::Svg, CurveForm::Beziers},
    {"-arcs.svg", job::FileFormat::Svg, CurveForm::Arcs, Unit::Inch, job::SvgElement::Part},
    {"-each.svg", job::FileFormat::Svg, CurveForm::Lines, Unit::Millimetre, job::SvgElement::Outline},
    {".pdf", job::FileFormat::Pdf, {}},
};

}  // namespace

class TestOtherReaders : public QObject {
  Q_OBJECT

 private slots:
  void everyFormIsReadAsItWasMeant() {
    QTemporaryDir folder;
    QJsonObject meant;
    for (unsigned seed = 1; seed <= 8; ++seed) {
      const bool open = seed % 2 == 0;
      const Drawing drawing = Shapes(seed).drawing(open);
      const QString name = QStringLiteral("d%1").arg(seed);
      job::ExportSettings look;
      look.filled = true;
      look.dpi = kPxPerMm * kMmPerInch;
      const QString seen = name + ".png";
      io::deliver(drawing, folder.filePath(seen).toStdString(), look, kToleranceMm);
      for (const Form& form : kForms) {
        job::FileWish wish;
        wish.format = form.format;
        wish.settings.curves = form.curves;
        wish.settings.unit = form.unit;
        wish.settings.element = form.element;
        wish.settings.filled = true;
        const QString file = name + form.ending;
        const io::Delivered made =
            io::deliver(drawing, folder.filePath(file).toStdString(), io::settingsFor(wish), kToleranceMm);
        QJsonObject one =
            meantBy(made.drawing, form.unit == Unit::Inch ? kMmPerInch : 1, form.format == job::FileFormat::Dxf2000);
        // Only closed outlines of one path element are filled with their holes open.
        if (!open && form.element != job::SvgElement::Outline) one["drawn"] = seen;
        meant[file] = one;
      }
    }
    QFile list(folder.filePath("meant.json"));
    QVERIFY(list.open(QIODevice::WriteOnly));
    list.write(QJsonDocument(meant).toJson());
    list.close();
    QProcess python;
    python.start("/usr/bin/python3", {SOURCE_FOLDER "/tests/outside/other_readers.py", folder.path()});
    QVERIFY(python.waitForFinished(300'000));
    QVERIFY2(python.exitCode() == 0, python.readAllStandardError().constData());
    const QJsonObject got = QJsonDocument::fromJson(python.readAllStandardOutput()).object();
    // Two readers for each DXF and SVG, one for each PDF.
    QCOMPARE(got["compared"].toInt(), 8 * (2 * 8 + 1));
    QStringList wrong;
    for (const auto& line : got["wrong"].toArray()) wrong << line.toString();
    QVERIFY2(wrong.isEmpty(), qPrintable(wrong.join("\n")));
  }
};

RIM_TEST(TestOtherReaders)
#include "tst_other_readers.moc"
