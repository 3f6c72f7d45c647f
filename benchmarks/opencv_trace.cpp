// What OpenCV alone makes of a picture, as a program of its own: reads it, thresholds it (Otsu), finds all contours
// with all their points and approximates them within 1 px. Prints how many points there are and the seconds that all
// but the program's start took.
//
//     opencv-trace PICTURE
#include <chrono>
#include <iostream>
#include <opencv2/imgcodecs.hpp>
#include <opencv2/imgproc.hpp>
#include <vector>

namespace {

using Contour = std::vector<cv::Point>;

std::size_t pointsOfContours(const char* picture) {
  cv::Mat ink;
  cv::threshold(cv::imread(picture, cv::IMREAD_GRAYSCALE), ink, 0, 255, cv::THRESH_BINARY_INV + cv::THRESH_OTSU);
  std::vector<Contour> contours;
  cv::findContours(ink, contours, cv::RETR_CCOMP, cv::CHAIN_APPROX_NONE);
  std::size_t points = 0;
  for (const Contour& contour : contours) {
    Contour few;
    cv::approxPolyDP(contour, few, 1, true);
    points += contour.size();
  }
  return points;
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 2) {
    std::cerr << "Usage: opencv-trace PICTURE\n";
    return 2;
  }
  cv::setNumThreads(2);
  const auto begin = std::chrono::steady_clock::now();
  const std::size_t points = pointsOfContours(argv[1]);
  const std::chrono::duration<double> took = std::chrono::steady_clock::now() - begin;
  std::cout << points << ' ' << took.count() << '\n';
  return 0;
}
