/** Everyday English words, folded: never taken for the misspelling of something else. */
export const COMMON_WORDS: ReadonlySet<string> = new Set(
  `a able about above across actually after afternoon again against ago all almost alone along already also although always
  am an and another any anybody anyone anything anyway anywhere are arent around as ask asked at away back bad be because become
  been before began being below best better between big bit both bought bring brought but buy by call called came can cant card
  cards care case change changed cheap check children city close closed cold come coming could couldnt course cut day days dear
  deal dealt did didnt different do does doesnt doing done dont door down drive during each early easy eat either else end enough
  even evening ever every everyone everything far fast feel few find fine first five follow food for form forty found four free
  friday friend from front full gave get gets getting girl give given go goes going gone good got great green had half hand happen
  happy hard has have havent having he hear heard hello help her here hers hi high him his hold home hope hot hour hours house how
  however i id if ill im in inside instead into is isnt it its ive job just keep kept kind knew know known large last late later
  least leave left less let lets letter lift light like likely line list little live long look looked looking lost lot love low
  made mail main make making man many march matter may maybe me mean meant meet might mine minute miss monday money month months
  more morning most mother move much must my name near nearly need needed needs never new next nice night nine no nobody none nor
  not note nothing now number of off often oh ok okay old on once one only onto open opened or order ordered other others our out
  outside over own page paid pale part party past pay people perhaps person phone pick picked place plan play please point possible post
  pound pounds price problem put quick quite rather read ready real really reason red right road room round run said same saturday
  saw save saving say saying says second see seem seen send sent set seven several shall she ship shop short should show shut side since sir
  six size small so some somebody someone something sometimes soon sorry sort sound speak special start started stay still stop
  store story street such sunday sure take taken taking talk tell ten than thank thanks that thats the their them then there these
  they thing things think third this those though thought three through thursday till time times to today together told tomorrow
  tonight too took top town tried trouble try trying tuesday turn twelve twenty two type under until up upon us use used using
  usual very visit wait waiting walk want wanted wants warm was wasnt watch water way we weather wednesday week weekend weeks well
  went were weve what whats when where which while white who whole whose why will wish with within without woman wont word work
  working world worth would wouldnt write wrong wrote year years yes yesterday yet you young your yours youre`.split(
    /\s+/,
  ),
);
