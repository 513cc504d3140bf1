// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/report/report.h"

#include <QByteArray>
#include <QPicture>
#include <QSizeF>

#include <functional>
#include <memory>
#include <stop_token>
#include <vector>

class QPainter;

namespace inchpeg
{

enum class Paper { A4, Letter };
/// "A4", "Letter"; nothing for another name.
std::optional<Paper> paperFrom(std::string_view name);

/// A report laid out on pages, to be looked at or printed. Needs a QGuiApplication for its fonts; may be made
/// and used in any one thread.
class PagedReport
{
public:
    PagedReport(Report report, Paper paper);
    ~PagedReport();
    PagedReport(PagedReport &&) noexcept;
    PagedReport &operator=(PagedReport &&) noexcept;

    [[nodiscard]] int pageCount() const;
    [[nodiscard]] QSizeF pageSize_mm() const;
    /// page: from 0. The painter counts in millimetres, its origin the paper's corner.
    void paintPage(QPainter &painter, int page) const;

private:
    struct Parts;
    std::unique_ptr<Parts> m_parts;
};

/// The pages as they are drawn, in millimetres, for looking at. For printing the report draws itself: a
/// picture keeps no text that could be searched.
std::vector<QPicture> pagePictures(const PagedReport &pages);

/// Called with how many of how many pages are written.
using PageProgress = std::function<void(int done, int all)>;

/// The pages as a PDF with fonts inside and pictures as vectors; empty where stopped.
QByteArray pdfOf(const PagedReport &pages, const std::string &title, const std::stop_token &stop = {},
                 const PageProgress &progress = {});

} // namespace inchpeg
