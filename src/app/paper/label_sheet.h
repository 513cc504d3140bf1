// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "core/model/workshop.h"

#include <QString>

class QPainter;
class QRectF;

namespace inchpeg::app
{

/// What one label says.
struct PieceLabel {
    QString code;  ///< one of a kind in the lab; also in the QR code
    QString piece; ///< short, one of a kind in the study
    QString rail;
};

/// Whether labels name piece and rail, or carry a code alone that says nothing of them.
enum class LabelKind { Named, Blind };

/// The labels of a study's pieces, those of printed plates too, in the study's order; blind ones by their
/// codes, so that neighbours on the sheet say nothing either.
std::vector<PieceLabel> labelsOf(const Study &study, const Workshop &workshop,
                                 LabelKind kind = LabelKind::Named);

/// What blind labels stand for: for the one who hands the pieces out, and to be kept from the one who judges.
class BlindKey
{
public:
    BlindKey(const Study &study, const Workshop &workshop);
    [[nodiscard]] int pageCount() const;
    /// A page of A4 drawn in millimetres; page from 0.
    void paintPage(QPainter &painter, int page) const;

private:
    struct Line {
        QString code, piece, rail;
    };
    QString m_title;
    std::vector<Line> m_lines; ///< by their codes
};

/// A QR code (ISO/IEC 18004, error correction M) of a text, filling the square.
/// False where the text cannot be coded.
bool paintQrCode(QPainter &painter, const QRectF &square, const QString &text);

void paintLabel(QPainter &painter, const QRectF &label, const PieceLabel &content);

/// How many sheets so many labels fill, and one sheet of A4 drawn in millimetres.
int sheetCount(std::size_t labels, const LabelStock &stock);
void paintLabelSheet(QPainter &painter, const std::vector<PieceLabel> &labels, const LabelStock &stock,
                     int sheet, bool outlines);

/// Sheets of labels; behind blind ones the key. Errors: Storage, with the path.
Status writeLabelSheets(const QString &path, const Study &study, const Workshop &workshop,
                        LabelKind kind = LabelKind::Named);

} // namespace inchpeg::app
